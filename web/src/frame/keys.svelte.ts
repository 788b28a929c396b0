/** The keys of the page that is open, for the list under "?". */
class KeyList {
  of = $state.raw<[string, string][]>([]);
}

export const keyList = new KeyList();
