package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.excluded;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Objects;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.db.tables.records.PersonRecord;
import org.zephyrmist.server.web.Refusal;

/** People with a password. */
@Component
public class People implements UserDetailsService {
  private final DSLContext db;
  private final PasswordEncoder passwords;

  People(DSLContext db, PasswordEncoder passwords) {
    this.db = db;
    this.passwords = passwords;
  }

  @Override
  public SignedIn loadUserByUsername(String email) {
    return db.selectFrom(PERSON)
        .where(PERSON.EMAIL.eq(email.strip().toLowerCase(Locale.ROOT)))
        .and(PERSON.PASSWORD_HASH.isNotNull())
        .fetchOptional(People::signedIn)
        .orElseThrow(() -> new UsernameNotFoundException("No such person"));
  }

  static SignedIn signedIn(PersonRecord r) {
    return new SignedIn(
        r.getId(),
        r.getEmail(),
        r.getName(),
        Role.valueOf(r.getRole()),
        Objects.requireNonNullElse(r.getPasswordHash(), ""));
  }

  /** Whether this is the person's password. */
  boolean knows(UUID person, String password) {
    return db.select(PERSON.PASSWORD_HASH)
        .from(PERSON)
        .where(PERSON.ID.eq(person))
        .fetchOptional(PERSON.PASSWORD_HASH)
        .filter(h -> passwords.matches(password, h))
        .isPresent();
  }

  /** Another password; every session of the person ends but the given one. */
  void changePassword(SignedIn who, String password, String session) {
    db.update(PERSON)
        .set(PERSON.PASSWORD_HASH, encoded(password))
        .where(PERSON.ID.eq(who.id()))
        .execute();
    endSessions(who.getUsername(), session);
  }

  private void endSessions(String email, String but) {
    db.query("delete from spring_session where principal_name = ? and session_id <> ?", email, but)
        .execute();
  }

  /** The hash counts 72 bytes at the most; more would be cut off unseen. */
  private String encoded(String password) {
    if (password.getBytes(StandardCharsets.UTF_8).length > 72) {
      throw Refusal.bad("The password is longer than 72 bytes.", "Choose a shorter one.");
    }
    return passwords.encode(password);
  }

  public boolean nobody() {
    return !db.fetchExists(db.selectFrom(PERSON).where(PERSON.PASSWORD_HASH.isNotNull()));
  }

  /** A new person who can sign in; gives the password to one who came with a roster. */
  public UUID admit(String email, String name, Role role, String password) {
    String address = email.strip().toLowerCase(Locale.ROOT);
    endSessions(address, "");
    return db.insertInto(PERSON)
        .set(PERSON.ID, UUID.randomUUID())
        .set(PERSON.EMAIL, address)
        .set(PERSON.NAME, name)
        .set(PERSON.ROLE, role.name())
        .set(PERSON.PASSWORD_HASH, encoded(password))
        .onConflict(PERSON.EMAIL)
        .doUpdate()
        .set(PERSON.PASSWORD_HASH, excluded(PERSON.PASSWORD_HASH))
        .set(PERSON.ROLE, role.name())
        .returning(PERSON.ID)
        .fetchSingle(PERSON.ID);
  }
}
