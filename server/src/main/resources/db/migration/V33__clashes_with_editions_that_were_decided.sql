-- What a master and an edition said of an aspect when somebody decided which counts.
create table edition_settled (
  master_id uuid not null references master on delete cascade,
  edition_id uuid not null references edition on delete cascade,
  item_key text not null,
  aspect text not null,
  ours bytea not null check (octet_length(ours) = 32),
  theirs bytea not null check (octet_length(theirs) = 32),
  primary key (master_id, edition_id, item_key, aspect)
);
-- The side of its editions that a master was last brought, item by item; none: that of the edition it was made from.
alter table master add column brought_tree_id uuid references tree;
