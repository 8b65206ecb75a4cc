-- What was passed on to whom, as it was. What a partner has of a record is the newest row of it among the deliveries to that partner.
create table delivery (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    partner     text        not null check (partner <> ''),
    scope       jsonb       not null,
    note        text        not null,
    sent_by     uuid        not null references person,
    unchanged   integer     not null,
    recorded_at timestamptz not null
);
create index delivery_partner on delivery (lower(partner), number);

-- Cells are those of the table that was sent, in the order of its headers; a record that was withdrawn has none.
create table delivered (
    delivery_id   uuid    not null references delivery,
    occurrence_id uuid    not null,
    place         integer not null,
    state         text    not null check (state in ('new', 'changed', 'withdrawn')),
    name          text    not null,
    name_before   text    not null,
    mark          text    not null,
    cells         jsonb,
    primary key (delivery_id, occurrence_id)
);
create index delivered_occurrence on delivered (occurrence_id);
create index delivered_order on delivered (delivery_id, place);

-- What partners say stands beside what is recorded here; said again, the newest holds.
create table verdict (
    id            uuid        primary key,
    number        bigint      generated always as identity unique,
    partner       text        not null,
    occurrence_id uuid        not null,
    verdict       text        not null check (verdict in ('accepted', 'queried', 'rejected')),
    says          text        not null,
    said_on       date        not null,
    noted_by      uuid        not null references person,
    recorded_at   timestamptz not null
);
create index verdict_occurrence on verdict (occurrence_id, number);

create trigger delivery_is_a_fact before update or delete on delivery for each row execute function refuse_change();
create trigger delivered_is_a_fact before update or delete on delivered for each row execute function refuse_change();
create trigger verdict_is_a_fact before update or delete on verdict for each row execute function refuse_change();

-- What was erased leaves what was kept of deliveries too: the id alone stays, so that the next one says that it holds no more.
alter function erase(uuid) rename to erase_recorded;
create function erase(subject uuid) returns uuid language plpgsql as $$
declare
    of_plant uuid;
begin
    of_plant := erase_recorded(subject);
    perform set_config('garten.erasing', 'on', true);
    update delivered d set cells = null, name = '', name_before = ''
    where d.cells is not null and exists (select from erased e where e.id = d.occurrence_id);
    update verdict v set says = '' where v.says <> '' and exists (select from erased e where e.id = v.occurrence_id);
    perform set_config('garten.erasing', 'off', true);
    return of_plant;
end $$;
