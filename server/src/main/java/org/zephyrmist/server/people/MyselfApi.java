package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.web.Refusal;

/** One's own password and tokens; never with a token. */
@RestController
@RequestMapping("/api/me")
class MyselfApi {
  private final People people;
  private final Tokens tokens;
  private final Events events;

  MyselfApi(People people, Tokens tokens, Events events) {
    this.people = people;
    this.tokens = tokens;
    this.events = events;
  }

  record NewPassword(@NotBlank String old, @NotBlank @Size(min = 10, max = 72) String password) {}

  record TokenView(
      @NotNull UUID id,
      @NotNull String name,
      @NotNull List<String> scopes,
      @NotNull OffsetDateTime madeAt,
      @NotNull OffsetDateTime expiresAt,
      OffsetDateTime usedAt) {}

  record NewToken(
      @NotBlank @Size(max = 100) String name,
      @NotEmpty Set<Scope> scopes,
      @Min(1) @Max(366) int days) {}

  record MadeToken(@NotNull String token) {}

  /** All other sessions of this person end. */
  @PostMapping("/password")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void password(
      @Valid @RequestBody NewPassword p,
      @AuthenticationPrincipal SignedIn who,
      HttpSession session) {
    if (!people.knows(who.id(), p.old())) {
      throw Refusal.bad("The old password is not right.", "Type it again.");
    }
    people.changePassword(who, p.password(), session.getId());
    events.add(who.id(), "changed password", who.getUsername(), "");
  }

  @GetMapping("/tokens")
  List<TokenView> tokens(@AuthenticationPrincipal SignedIn who) {
    return tokens.of(who.id()).stream()
        .map(
            t ->
                new TokenView(
                    t.getId(),
                    t.getName(),
                    List.of(t.getScopes()),
                    t.getMadeAt(),
                    t.getExpiresAt(),
                    t.getUsedAt()))
        .toList();
  }

  /** The text of the token is shown this once. */
  @PostMapping("/tokens")
  @ResponseStatus(HttpStatus.CREATED)
  MadeToken make(@Valid @RequestBody NewToken t, @AuthenticationPrincipal SignedIn who) {
    Set<Scope> scopes = new TreeSet<>(t.scopes());
    if (scopes.contains(Scope.NONE)) {
      throw Refusal.bad("NONE is no scope.", "Name READ, SOURCES, DELIVER or COLLEGE.");
    }
    String text = tokens.make(who.id(), t.name(), scopes, t.days());
    String words = String.join(", ", Stream.of(scopes.toArray()).map(Object::toString).toList());
    events.add(who.id(), "made token", t.name(), words + ", " + t.days() + " days");
    return new MadeToken(text);
  }

  @DeleteMapping("/tokens/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void end(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    events.add(who.id(), "ended token", tokens.end(who.id(), id), "");
  }
}
