-- What people add to a hand-over; that it is one follows from what waits for it.
create table hand_over (
  kind text not null check (kind in
    ('CREATE_SHELL', 'CLEAR_SHELL', 'SWITCH_SUPPORT_ON', 'ENTER_CREDENTIALS', 'APPROVE', 'OPEN_ONCE')),
  section_id uuid not null references section on delete cascade,
  host text not null default '',
  owner_id uuid references person on delete set null,
  due date,
  note text not null default '',
  reminded_at timestamptz,
  primary key (kind, section_id, host)
);
create index on hand_over (section_id);
-- How each kind is done at this college; what is empty holds for all.
create table hand_over_steps (
  kind text not null check (kind in
    ('CREATE_SHELL', 'CLEAR_SHELL', 'SWITCH_SUPPORT_ON', 'ENTER_CREDENTIALS', 'APPROVE', 'OPEN_ONCE')),
  platform_id uuid references platform on delete cascade,
  host text not null default '',
  steps text not null,
  contact text not null,
  unique nulls not distinct (kind, platform_id, host)
);
