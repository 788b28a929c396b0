package org.zephyrmist.core.delivery;

/** What a step does with an item. */
public enum StepKind {
  ADD,
  UPDATE,
  KEEP,
  CLASH,
  TWIN,
  RETIRE,
  SAME,
  BLOCKED
}
