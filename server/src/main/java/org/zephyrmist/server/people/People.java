package org.zephyrmist.server.people;

import static org.zephyrmist.server.db.Tables.PERSON;

import java.util.Locale;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

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
        .fetchOptional(
            r ->
                new SignedIn(
                    r.getId(),
                    r.getEmail(),
                    r.getName(),
                    Role.valueOf(r.getRole()),
                    r.getPasswordHash()))
        .orElseThrow(() -> new UsernameNotFoundException("No such person"));
  }

  public boolean nobody() {
    return !db.fetchExists(db.selectFrom(PERSON).where(PERSON.PASSWORD_HASH.isNotNull()));
  }

  /** A new person who can sign in; gives the password to one who came with a roster. */
  public UUID admit(String email, String name, Role role, String password) {
    String address = email.strip().toLowerCase(Locale.ROOT);
    return db.insertInto(PERSON)
        .set(PERSON.ID, UUID.randomUUID())
        .set(PERSON.EMAIL, address)
        .set(PERSON.NAME, name)
        .set(PERSON.ROLE, role.name())
        .set(PERSON.PASSWORD_HASH, passwords.encode(password))
        .onConflict(PERSON.EMAIL)
        .doUpdate()
        .set(PERSON.PASSWORD_HASH, passwords.encode(password))
        .set(PERSON.ROLE, role.name())
        .returning(PERSON.ID)
        .fetchSingle(PERSON.ID);
  }
}
