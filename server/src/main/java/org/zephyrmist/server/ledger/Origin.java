package org.zephyrmist.server.ledger;

import java.util.UUID;

/** From where receipts come. */
public record Origin(UUID section, UUID master, UUID version, UUID delivery, UUID person) {}
