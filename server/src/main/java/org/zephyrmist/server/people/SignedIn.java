package org.zephyrmist.server.people;

import java.util.List;
import java.util.UUID;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.userdetails.User;

/** The person behind a session. */
public final class SignedIn extends User {
  private static final long serialVersionUID = 1;
  private final UUID id;
  private final String name;
  private final Role role;

  SignedIn(UUID id, String email, String name, Role role, String hash) {
    super(email, hash, List.of(new SimpleGrantedAuthority("ROLE_" + role.name())));
    this.id = id;
    this.name = name;
    this.role = role;
  }

  public UUID id() {
    return id;
  }

  public String name() {
    return name;
  }

  public Role role() {
    return role;
  }
}
