-- What of a shell could not be read when it was looked at last; without an item: nothing of it.
create table shell_unread (
  section_id uuid not null references section on delete cascade,
  platform_item text not null default '',
  title text not null,
  why text not null,
  remedy text not null,
  since timestamptz not null,
  passes boolean not null, -- by itself, perhaps: told once it has lasted
  primary key (section_id, platform_item)
);
