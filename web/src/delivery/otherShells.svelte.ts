import { api, got, type Schemas } from '../api/client';

/** Shells that are no section's, asked for once when a page opens. */
export class OtherShells {
  all = $state.raw<Schemas['OtherShell'][]>([]);
  constructor() {
    void got(api.GET('/api/shells')).then(
      (s) => (this.all = s),
      () => (this.all = []), // who may not see them has none
    );
  }
}
