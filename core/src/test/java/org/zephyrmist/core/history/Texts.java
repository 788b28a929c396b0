package org.zephyrmist.core.history;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Merges;
import org.zephyrmist.core.merge.WordingMerge;

/** All that was ever said, by fingerprint. */
final class Texts {
  private final Map<Fingerprint, String> forms = new HashMap<>();

  Fingerprint keep(String form) {
    Fingerprint f = Fingerprint.of(form);
    forms.put(f, form);
    return f;
  }

  String of(Fingerprint f) {
    return Optional.ofNullable(forms.get(f)).orElseThrow();
  }

  Merges merges() {
    return three ->
        WordingMerge.of(wording(three.base()), wording(three.here()), wording(three.version()))
            .map(m -> new Merges.Merged(keep(AspectForms.form(m.wording())), m.clean()));
  }

  private Wording wording(Fingerprint f) {
    return AspectForms.wording(of(f));
  }
}
