-- What becomes of texts that sections made their own, said for one term after another.
alter table next_text add column said text;
update next_text set said = case when carried then 'AGAIN' else 'DROPPED' end;
alter table next_text alter column said set not null;
alter table next_text add constraint next_text_said_check check (said in
  ('AGAIN', 'BLANKS', 'TO_MASTER', 'DROPPED'));
alter table next_text drop column carried;
alter table next_text add column at timestamptz not null default now();
create index on next_text (master_id, item_key);
-- By which recipe a master comes: one that was chosen; or none, whatever was used before.
alter table next_master add column recipe_id uuid references recipe on delete set null;
alter table next_master add column no_recipe boolean not null default false;
alter table next_master add constraint one_recipe check (not no_recipe or recipe_id is null);
