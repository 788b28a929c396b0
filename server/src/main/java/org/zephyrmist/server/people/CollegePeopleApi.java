package org.zephyrmist.server.people;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.selectCount;
import static org.zephyrmist.server.db.Tables.ACCESS_TOKEN;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PERSON_PROGRAM;
import static org.zephyrmist.server.db.Tables.PROGRAM;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.db.tables.records.PersonRecord;
import org.zephyrmist.server.web.Refusal;

/** The people of the college, as administrators look after them; never with a token. */
@RestController
@RequestMapping(path = "/api/people", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasRole('ADMINISTRATOR')")
class CollegePeopleApi {
  private static final int MOST = 500;
  private final People people;
  private final Programs programs;
  private final Tokens tokens;
  private final Events events;
  private final DSLContext db;

  CollegePeopleApi(People people, Programs programs, Tokens tokens, Events events, DSLContext db) {
    this.people = people;
    this.programs = programs;
    this.tokens = tokens;
    this.events = events;
    this.db = db;
  }

  record ProgramView(@NotNull UUID id, @NotNull String name) {}

  /**
   * @param email none for who came with a roster without one
   * @param signsIn whether they have a password
   * @param programs that a coordinator or designer reaches
   * @param tokens how many tokens they have
   */
  record PersonView(
      @NotNull UUID id,
      @NotNull String name,
      String email,
      @NotNull Role role,
      boolean signsIn,
      boolean fromRoster,
      @NotNull List<UUID> programs,
      int tokens) {}

  /**
   * @param people those who can sign in first, by name; 500 at the most
   * @param all how many there are
   */
  record PeopleList(
      @NotNull List<PersonView> people, int all, @NotNull List<ProgramView> programs) {}

  record ChangedPerson(
      @NotBlank @Size(max = 200) String name, @NotNull Role role, @NotNull Set<UUID> programs) {}

  record GivenPassword(@NotBlank @Size(min = 10, max = 72) String password) {}

  /**
   * @param q part of a name or address
   */
  @GetMapping
  PeopleList list(@RequestParam(defaultValue = "") String q) {
    Condition found =
        PERSON.NAME.containsIgnoreCase(q.strip()).or(PERSON.EMAIL.containsIgnoreCase(q.strip()));
    Map<UUID, List<UUID>> reached =
        db.selectFrom(PERSON_PROGRAM)
            .fetchGroups(PERSON_PROGRAM.PERSON_ID, PERSON_PROGRAM.PROGRAM_ID);
    Field<Integer> held =
        field(selectCount().from(ACCESS_TOKEN).where(ACCESS_TOKEN.PERSON_ID.eq(PERSON.ID)));
    List<PersonView> all =
        db.select(PERSON.fields())
            .select(held)
            .from(PERSON)
            .where(found)
            .orderBy(PERSON.PASSWORD_HASH.isNull(), PERSON.NAME, PERSON.ID)
            .limit(MOST)
            .fetch(r -> view(r.into(PERSON), reached, r.get(held)));
    return new PeopleList(
        all,
        db.fetchCount(PERSON, found),
        db.selectFrom(PROGRAM)
            .orderBy(PROGRAM.NAME, PROGRAM.ID)
            .fetch(p -> new ProgramView(p.getId(), p.getName())));
  }

  private static PersonView view(PersonRecord p, Map<UUID, List<UUID>> reached, int tokens) {
    return new PersonView(
        p.getId(),
        p.getName(),
        p.getEmail(),
        p.getRole(),
        p.getPasswordHash() != null,
        p.getSourcedId() != null,
        reached.getOrDefault(p.getId(), List.of()),
        tokens);
  }

  /** A new person; coordinators and designers reach the programs named, or every one there is. */
  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  @Transactional
  public void admit(
      @Valid @RequestBody PeopleApi.NewPerson p, @AuthenticationPrincipal SignedIn who) {
    UUID id = people.admit(p.email(), p.name(), p.role(), p.password());
    if (reaches(p.role()) && p.programs() != null) {
      programs.reachOnly(id, p.programs());
    } else if (reaches(p.role())) {
      programs.reachAll(id);
    }
    events.add(who.id(), "admitted", p.email(), p.role().name());
  }

  private static boolean reaches(Role role) {
    return role == Role.COORDINATOR || role == Role.DESIGNER;
  }

  @PutMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @Transactional
  public void change(
      @PathVariable UUID id,
      @Valid @RequestBody ChangedPerson p,
      @AuthenticationPrincipal SignedIn who) {
    people.change(id, p.name().strip(), p.role());
    programs.reachOnly(id, reaches(p.role()) ? p.programs() : Set.of());
    events.add(who.id(), "changed person", p.name(), words(p));
  }

  private static String words(ChangedPerson p) {
    String role = p.role().name().toLowerCase(Locale.ROOT);
    return reaches(p.role()) ? role + ", " + p.programs().size() + " programs" : role;
  }

  /** Sessions and tokens of the person end. */
  @PostMapping("/{id}/password")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @Transactional
  public void password(
      @PathVariable UUID id,
      @Valid @RequestBody GivenPassword p,
      @AuthenticationPrincipal SignedIn who) {
    people.setPassword(id, p.password());
    tokens.endAll(id);
    events.add(who.id(), "set password of", people.person(id).getName(), "");
  }

  /** The person can no longer sign in; sessions and tokens end at once. */
  @DeleteMapping("/{id}/access")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  @Transactional
  public void end(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    if (id.equals(who.id())) {
      throw Refusal.bad(
          "This is you.", "Have another administrator end your access, so that one stays.");
    }
    people.end(id);
    tokens.endAll(id);
    events.add(who.id(), "ended access of", people.person(id).getName(), "");
  }
}
