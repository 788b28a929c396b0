-- A kind more: what makes a shell a place.
alter domain item_kind drop constraint item_kind_check;
alter domain item_kind add constraint item_kind_check check (value in
  ('MODULE', 'PAGE', 'FILE', 'WEB_LINK', 'TOOL_LINK', 'ASSIGNMENT', 'DISCUSSION', 'QUIZ', 'QUESTION_BANK',
   'RUBRIC', 'OUTCOME', 'GRADE_CATEGORY', 'ANNOUNCEMENT', 'GROUP_SET', 'SETUP'));

-- Items that are tied without a technical need: those with one name go with each other.
alter table tree_item add column goes_with text check (goes_with <> '');
create index on tree_item (tree_id, goes_with) where goes_with is not null;

-- What a master is limited to: how many of each kind at most, 0 for any number. Empty: anything.
alter table master add column guard jsonb not null default '{}';

-- Values that texts fill in for the whole college, besides those of the roster.
create table college_value (
  name text primary key check (name ~ '^[a-z][a-z0-9-]{0,39}$'),
  words text not null check (words <> ''),
  text text not null
);

-- Who looks at or writes which item of a draft.
create unlogged table draft_presence (
  master_id uuid not null references master on delete cascade,
  person_id uuid not null references person on delete cascade,
  item_key text not null,
  writing boolean not null,
  seen_at timestamptz not null,
  primary key (master_id, person_id)
);

-- What the college advises for a platform that takes packages.
alter table platform add column package_format text;
alter table platform add column package_advice text not null default '';

-- Packages that are made in the background, kept for some days.
create table made_package (
  id uuid primary key,
  master_id uuid not null references master on delete cascade,
  person_id uuid not null references person,
  file_name text not null,
  wanted jsonb not null,
  state text not null check (state in ('MAKING', 'READY', 'FAILED')),
  bytes bigint not null default 0,
  tries int not null default 0,
  sha256 bytea references file,
  problem text not null default '',
  made_at timestamptz not null
);
create index on made_package (master_id, made_at desc);
