-- Every file of a package under its path there, whether an item uses it or not.
create table package_file (
  tree_id uuid not null references tree on delete cascade,
  path text not null,
  sha256 bytea not null references file,
  primary key (tree_id, path)
);
