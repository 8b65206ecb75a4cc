-- A scanned map may be turned: then three corners of the picture say where it lies. South and west are those of its bottom left corner,
-- north and east those of its top right one, which need no longer lie so.
alter table map_sheet
    add column top_left_latitude  double precision check (top_left_latitude between -90 and 90),
    add column top_left_longitude double precision check (top_left_longitude between -180 and 180),
    add constraint top_left_whole check ((top_left_latitude is null) = (top_left_longitude is null)),
    drop constraint map_sheet_check,
    drop constraint map_sheet_check1,
    add constraint map_sheet_north check (north between -90 and 90),
    add constraint map_sheet_east check (east between -180 and 180),
    add constraint map_sheet_spans check (top_left_latitude is not null or (north > south and east > west));
