-- Personal access tokens for scripts; only a hash is kept.
create table access_token (
  id uuid primary key,
  person_id uuid not null references person on delete cascade,
  name text not null check (name <> ''),
  hash bytea not null unique check (octet_length(hash) = 32),
  scopes text[] not null check (cardinality(scopes) > 0),
  made_at timestamptz not null,
  expires_at timestamptz not null check (expires_at > made_at),
  used_at timestamptz
);
create index on access_token (person_id);

-- Failed sign-ins, by a hash of who tried from where.
create table sign_in_failure (
  key bytea primary key check (octet_length(key) = 32),
  failures int not null,
  last timestamptz not null
);

-- The record is only ever added to; not even emptied.
create trigger event_not_emptied before truncate on event execute function only_added();
create trigger receipt_not_emptied before truncate on receipt execute function only_added();
create index on event (at);
