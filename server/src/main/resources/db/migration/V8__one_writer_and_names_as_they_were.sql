-- The record keeps names as they were.
alter table event add column person_name text;
alter table event disable trigger event_only_added;
update event e set person_name = p.name from person p where p.id = e.person_id;
alter table event enable trigger event_only_added;

-- Mail addresses may be longer than the framework's column.
alter table spring_session alter column principal_name type text;

-- A draft has one writer at a time; each edit is a revision of it, with who made it.
alter table master add column draft_revision bigint not null default 0;
create table draft_edit (
  master_id uuid not null references master on delete cascade,
  item_key text not null,
  revision bigint not null,
  person_id uuid not null references person,
  at timestamptz not null,
  primary key (master_id, item_key)
);

-- Two siblings never have one rank. Where earlier ones had, the later go right behind the first.
with same as (
  select tree_id, item_key, row_number() over (partition by tree_id, parent_key, rank order by item_key) n
  from tree_item
)
update tree_item t set rank = t.rank || repeat('0', s.n::int - 1) || '1' from same s
where s.tree_id = t.tree_id and s.item_key = t.item_key and s.n > 1;
alter table tree_item add constraint tree_item_rank unique nulls not distinct
  (tree_id, parent_key, rank) deferrable initially deferred;

-- No module ever stands in itself, however many move modules at once.
create function no_ring() returns trigger language plpgsql as $$
begin
  perform 1 from tree where id = new.tree_id for update;
  if exists (
    with recursive up (item_key, n) as (
      select parent_key, 1 from tree_item where tree_id = new.tree_id and item_key = new.item_key
      union all
      select t.parent_key, up.n + 1 from up join tree_item t
        on t.tree_id = new.tree_id and t.item_key = up.item_key
      where up.item_key <> new.item_key and up.n < 1000
    )
    select 1 from up where item_key = new.item_key or n = 1000
  ) then
    raise exception 'module % would stand in itself', new.item_key using errcode = '23514';
  end if;
  return null;
end $$;
create constraint trigger tree_item_no_ring after update of parent_key on tree_item
  deferrable initially deferred for each row
  when (new.parent_key is not null and new.parent_key is distinct from old.parent_key)
  execute function no_ring();
