-- A registration (LTI 1.3) stands where key and secret stand; the key is its client.
alter table tool_data
  add column deployment text not null default '',
  add column login text not null default '',
  add column launches text[] not null default '{}',
  add column key_set text not null default '';
-- Launches that have begun with a login, each answered once.
create table tool_launch (
  id text primary key,
  shell_id text not null references shell on delete cascade,
  item_id text not null,
  person text not null,
  instructor boolean not null,
  at timestamptz not null
);
-- Scores that came back, as they were sent, and as they count.
create table tool_score (
  shell_id text not null references shell on delete cascade,
  host text not null,
  item_id text not null,
  person text not null,
  given numeric not null,
  maximum numeric not null,
  at timestamptz not null,
  primary key (shell_id, item_id, person)
);
-- Tokens for scores, and the assertions that they were given for.
create table score_token (
  token text primary key,
  assertion text not null unique,
  client text not null,
  ends_at timestamptz not null
);
-- Grades of LTI 1.1 are taken once.
create table outcome_nonce (nonce text primary key, at timestamptz not null);

-- The tools' own side: platforms that a tool knows, logins that it answered, and people who are in.
create table tool_platform (
  host text not null,
  issuer text not null,
  client text not null,
  deployments text[] not null,
  keys text not null,
  authorize text not null,
  token text not null default '',
  primary key (host, issuer, client)
);
create table tool_login (
  state text primary key,
  nonce text not null,
  host text not null,
  issuer text not null,
  client text not null,
  at timestamptz not null
);
create table tool_visit (
  id text primary key,
  host text not null,
  issuer text not null,
  client text not null,
  deployment text not null,
  person text not null,
  line_item text not null default '',
  back text not null default '',
  data text not null default '',
  at timestamptz not null
);
