-- Tracks of visits: kept piece by piece while they run. The file that one came from is kept as it was.
create table track_file (
    hash        text        primary key check (hash ~ '^[0-9a-f]{64}$'),
    content     bytea       not null,
    recorded_at timestamptz not null
);

create table track_piece (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    track_id    uuid        not null,
    visit_id    uuid        not null references site_visit,
    recorder    uuid        not null references person,
    started_at  text        not null,
    source      text        not null,
    points      jsonb       not null,
    file_hash   text        references track_file,
    recorded_at timestamptz not null
);
create index track_piece_visit on track_piece (visit_id, number);
create index track_piece_track on track_piece (track_id);
create index track_piece_file on track_piece (file_hash) where file_hash is not null;

create table track_withdrawal (
    track_id    uuid        primary key,
    recorded_at timestamptz not null
);

create trigger track_piece_is_a_fact before update or delete on track_piece for each row execute function refuse_change();
create trigger track_withdrawal_is_a_fact before update or delete on track_withdrawal for each row execute function refuse_change();

-- What a visit that was planned is to answer, as it was planned.
alter table site_visit add planned jsonb not null default '[]';
create index site_visit_planned on site_visit using gin (planned jsonb_path_ops);

-- A track tells where somebody was: it can be erased as a whole, with the file that it came from.
alter function erase(uuid) rename to erase_record;
create function erase(subject uuid) returns uuid language plpgsql as $$
declare
    files text[];
begin
    if not exists (select from track_piece where track_id = subject) then
        update site_visit v
        set planned = (
            select coalesce(jsonb_agg(p.question), '[]')
            from jsonb_array_elements(v.planned) as p(question)
            where p.question->>'subjectId' <> subject::text
        )
        where v.planned @> jsonb_build_array(jsonb_build_object('subjectId', subject));
        return erase_record(subject);
    end if;
    perform set_config('garten.erasing', 'on', true);
    insert into erased (id, kind) values (subject, 'track') on conflict (id) do update set kind = excluded.kind;
    files := array(select distinct file_hash from track_piece where track_id = subject and file_hash is not null);
    delete from track_piece where track_id = subject;
    delete from track_withdrawal where track_id = subject;
    delete from track_file f where f.hash = any(files) and not exists (select from track_piece p where p.file_hash = f.hash);
    perform set_config('garten.erasing', 'off', true);
    return null;
end $$;
