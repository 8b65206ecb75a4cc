-- The binary form of a flora that identification loads, kept so that it isn't made again at each start. It follows from the content alone, by the form and
-- the core that made it; of an older core it is thrown away.
create table flora_columns (
    content_hash text     not null,
    form         smallint not null,
    core         text     not null,
    bytes        bytea    not null,
    primary key (content_hash, form, core)
);
alter table flora_columns alter column bytes set storage external;
