-- Where the text of a key or of a flora's descriptions is from and what may be done with it; of one text the newest counts. A device alone
-- sees what was brought for it alone.
create table text_source (
    number      bigint generated always as identity primary key,
    kind        text        not null check (kind in ('key', 'flora')),
    of_id       text        not null check (length(of_id) between 1 and 200),
    content     jsonb       not null,
    only_device uuid,
    told_at     timestamptz not null
);
create index text_source_newest on text_source (kind, of_id, number desc);
create trigger text_source_is_a_fact before update or delete on text_source for each row execute function refuse_change();

-- A word can be taught for the texts of one book alone; empty: for all.
alter table taught_term add column book text not null default '' check (length(book) <= 200);
