-- What was accepted and is not done yet, in its order.
create table queue (id int primary key default 1 check (id = 1), paused boolean not null);
insert into queue (paused) values (false);
create table queued (
  id bigint generated always as identity primary key,
  shell_id text not null references shell on delete cascade,
  steps jsonb not null,
  at timestamptz not null
);
create table queued_key (
  key text primary key,
  queued_id bigint not null references queued on delete cascade
);
-- What students write in discussions, and marks that they are given.
create table post (
  id bigint generated always as identity primary key,
  item_id text not null references item on delete cascade,
  student text not null,
  text text not null,
  at timestamptz not null
);
create index on post (item_id);
alter table submission add column grade numeric;
