package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.excluded;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Objects;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
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

  /** Somebody for whom work goes on when the call has ended. */
  public SignedIn get(UUID id) {
    return signedIn(db.selectFrom(PERSON).where(PERSON.ID.eq(id)).fetchSingle());
  }

  static SignedIn signedIn(PersonRecord r) {
    return new SignedIn(
        r.getId(),
        r.getEmail(),
        r.getName(),
        r.getRole(),
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

  /** On an empty installation, and once however many ask at the same moment. */
  @Transactional
  public UUID first(String email, String name, String password) {
    db.query("select pg_advisory_xact_lock(2)").execute();
    if (!nobody()) {
      throw new Refusal(HttpStatus.CONFLICT, "The first person is there already.", "Sign in.");
    }
    return admit(email, name, Role.ADMINISTRATOR, password);
  }

  /**
   * A new person who can sign in; gives a password to one who came with a roster and has none.
   *
   * @throws Refusal if somebody can sign in under this address already
   */
  public UUID admit(String email, String name, Role role, String password) {
    String address = email.strip().toLowerCase(Locale.ROOT);
    return db.insertInto(PERSON)
        .set(PERSON.ID, UUID.randomUUID())
        .set(PERSON.EMAIL, address)
        .set(PERSON.NAME, name)
        .set(PERSON.ROLE, role)
        .set(PERSON.PASSWORD_HASH, encoded(password))
        .onConflict(PERSON.EMAIL)
        .doUpdate()
        .set(PERSON.PASSWORD_HASH, excluded(PERSON.PASSWORD_HASH))
        .set(PERSON.ROLE, role)
        .where(PERSON.PASSWORD_HASH.isNull())
        .returning(PERSON.ID)
        .fetchOptional(PERSON.ID)
        .orElseThrow(
            () ->
                new Refusal(
                    HttpStatus.CONFLICT,
                    "Somebody can sign in as " + address + " already.",
                    "Change that person's role, programs or password instead."));
  }

  /** A person as administrators look after them. */
  PersonRecord person(UUID id) {
    return db.selectFrom(PERSON)
        .where(PERSON.ID.eq(id))
        .fetchOptional()
        .orElseThrow(() -> Refusal.notFound("person"));
  }

  /** Another role counts at once: whoever is signed in with the old one has to sign in again. */
  @Transactional
  public void change(UUID id, String name, Role role) {
    PersonRecord p = person(id);
    if (role != Role.ADMINISTRATOR) {
      keepAnAdministrator(id);
    }
    db.update(PERSON)
        .set(PERSON.NAME, name)
        .set(PERSON.ROLE, role)
        .where(PERSON.ID.eq(id))
        .execute();
    if (p.getRole() != role && p.getEmail() != null) {
      endSessions(p.getEmail(), "");
    }
  }

  /** A new password for another person, whose sessions end. */
  @Transactional
  public void setPassword(UUID id, String password) {
    PersonRecord p = person(id);
    if (p.getEmail() == null) {
      throw Refusal.bad(
          p.getName() + " has no mail address to sign in with.",
          "Have the roster corrected, or let the person in under an address.");
    }
    db.update(PERSON)
        .set(PERSON.PASSWORD_HASH, encoded(password))
        .where(PERSON.ID.eq(id))
        .execute();
    endSessions(p.getEmail(), "");
  }

  /** The person can no longer sign in; what they did stays theirs. */
  @Transactional
  public void end(UUID id) {
    PersonRecord p = person(id);
    keepAnAdministrator(id);
    db.update(PERSON).setNull(PERSON.PASSWORD_HASH).where(PERSON.ID.eq(id)).execute();
    if (p.getEmail() != null) {
      endSessions(p.getEmail(), "");
    }
  }

  /** Whoever goes, another administrator stays; two at once wait for each other. */
  private void keepAnAdministrator(UUID going) {
    db.query("select pg_advisory_xact_lock(2)").execute();
    boolean another =
        db.fetchExists(
            PERSON,
            PERSON.ROLE.eq(Role.ADMINISTRATOR),
            PERSON.PASSWORD_HASH.isNotNull(),
            PERSON.ID.ne(going));
    if (!another) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "This is the last administrator.",
          "Make somebody else administrator first.");
    }
  }
}
