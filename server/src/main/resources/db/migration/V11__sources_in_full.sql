-- What a cartridge is, besides its title: what its maker calls it, and who that is.
alter table cartridge add column maker_identifier text not null default '';
alter table cartridge add column publisher text not null default '';
create index on cartridge (maker_identifier) where maker_identifier <> '';

-- An administrator's word that the protected parts of a cartridge may leave.
alter table cartridge add column consent_by uuid references person;
alter table cartridge add column consent_at timestamptz;

-- What an item asks for before it may be used, and the edition it came from; none: written here.
alter table tree_item add column asks text not null default '';
alter table tree_item add column origin uuid references edition;
update tree_item t set origin = m.edition_id
from master m join edition e on e.id = m.edition_id
where (t.tree_id = m.draft_tree_id or t.tree_id in (select v.tree_id from version v where v.master_id = m.id))
  and exists (select 1 from tree_item s where s.tree_id = e.tree_id and s.item_key = t.item_key);

-- Hosts whose frames may stand in texts.
create table frame_host (
  host text primary key check (host = lower(host) and length(host) between 1 and 253),
  approved_by uuid not null references person,
  approved_at timestamptz not null
);

-- What people decided of doubtful pairs between two editions; without a newer key, the item is gone.
create table pair_decision (
  older uuid not null references edition,
  newer uuid not null references edition,
  older_key text not null,
  newer_key text,
  decided_by uuid not null references person,
  decided_at timestamptz not null,
  primary key (older, newer, older_key)
);

-- What was done to a draft, item by item as it was before and after, so that it can be undone.
create table draft_step (
  id bigint primary key generated always as identity,
  master_id uuid not null references master on delete cascade,
  revision bigint not null,
  person_id uuid not null references person,
  at timestamptz not null,
  what text not null,
  undone boolean not null default false,
  rows jsonb not null
);
create index on draft_step (master_id, id desc);

-- What items say, by the fingerprint of their wording, to be searched in the language of their source.
create table words (
  fingerprint bytea primary key check (octet_length(fingerprint) = 32),
  language regconfig not null,
  text tsvector not null
);
create index on words using gin (text);
alter table tree add column words_known boolean not null default false;
create index on holding (item_key);
