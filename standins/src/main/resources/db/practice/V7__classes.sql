-- When students may enter a shell, and what each of them has opened.
alter table shell add column opens date, add column closes date;
create table seen (
  item_id text not null references item on delete cascade,
  student text not null,
  primary key (item_id, student)
);
