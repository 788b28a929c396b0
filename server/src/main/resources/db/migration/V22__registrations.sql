-- A registration (LTI 1.3); its client is the key of the connection, its deployment a pattern as the key is.
alter table tool_connection
  add column deployment text not null default '',
  add column login text not null default '',
  add column launches text[] not null default '{}',
  add column key_set text not null default '';
-- The key that this application signs messages with, one for all its servers.
create table signing_key (one boolean primary key default true check (one), secret bytea not null);

-- Resources that somebody picks in a tool for a draft; what the tool answered waits until they take it.
create table picking (
  id uuid primary key,
  connection_id uuid not null references tool_connection on delete cascade,
  master_id uuid not null references master on delete cascade,
  parent text,
  person_id uuid not null references person on delete cascade,
  deployment text not null,
  began_at timestamptz not null,
  asked_at timestamptz,
  answered_at timestamptz,
  picked jsonb,
  trouble text not null default '',
  taken_at timestamptz
);
create index on picking (began_at);
