package org.zephyrmist.server.people;

/** What a person does. */
public enum Role {
  COORDINATOR,
  DESIGNER,
  INSTRUCTOR,
  ADMINISTRATOR
}
