-- Mail that was received, and whether any is taken just now.
create table mail (
  id bigint generated always as identity primary key,
  message_id text not null,
  recipient text not null,
  subject text not null,
  body text not null,
  received_at timestamptz not null
);
create table mailbox (one boolean primary key default true check (one), closed boolean not null);
insert into mailbox (closed) values (false);
