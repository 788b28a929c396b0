-- A key alone names no item of a section: two masters may bring the same one.
alter table holding drop constraint holding_pkey;
alter table holding add primary key (section_id, master_id, item_key);
drop index holding_section_id_master_id_idx;
drop index receipt_section_id_item_key_id_idx;
create index on receipt (section_id, master_id, item_key, id);

-- Holdings that an item of another master with the same key took away come back from their last
-- receipts, and their sections are read again.
with last as (
  select distinct on (section_id, master_id, item_key) * from receipt
  order by section_id, master_id, item_key, id desc
), back as (
  insert into holding (section_id, master_id, item_key, item_kind, title, platform_item, receipt_id,
    sent, shown, here)
  select section_id, master_id, item_key, item_kind, title, platform_item, id, sent, shown, shown
  from last where how <> 'RETIRED'
  on conflict do nothing returning section_id
)
insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)
select distinct 'read-section', section_id::text, now(), false, 1 from back
on conflict do nothing;

-- Where a master's items stand among those of others at the top of a shell: given once, so that no
-- later edit of a coverage rule makes items look moved.
alter table master add column shell_order text not null default 'm'
  check (shell_order in ('c', 'm'));
alter table master alter column shell_order drop default;
update master m set shell_order = 'c'
where exists (select 1 from coverage_rule r where r.master_id = m.id and r.course_id is null);

-- New cartridges give their items keys of their own; those of earlier ones keep the keys they have.
alter table cartridge add column old_keys boolean not null default true;
alter table cartridge alter column old_keys set default false;
