-- A flora that is being brought in stays apart until it is published; bringing it again replaces it.
create table flora_draft (
    id           text        primary key check (length(id) between 1 and 200),
    name         text        not null check (length(name) between 1 and 200),
    content_hash text        not null,
    taxa         integer     not null,
    characters   integer     not null,
    pack         text        not null,
    problems     jsonb       not null,
    made_at      timestamptz not null,
    discarded_at timestamptz
);

-- Which versions of the floras a determination was made with; empty for those made before this was kept.
alter table determination add column floras jsonb not null default '{}';
