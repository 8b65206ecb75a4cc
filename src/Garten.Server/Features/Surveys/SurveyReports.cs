using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Npgsql;

namespace Garten.Server.Features.Surveys;

/// <summary>A survey with its report.</summary>
internal sealed record MadeReport(SurveyWhole Whole, SurveyReport Report, TaxonIndex Taxa, SensitiveTaxa? Sensitive);

/// <summary>Makes reports of surveys: gathers what the core writes them of.</summary>
internal sealed class SurveyReports(NpgsqlDataSource database, FloraRepository floras, TimeProvider clock)
{
    /// <summary>Makes one; null where there is no survey of this id.</summary>
    public async Task<MadeReport?> MakeAsync(Guid survey, bool isExact, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await MakeAsync(connection, survey, isExact, stop);
    }

    /// <inheritdoc cref="MakeAsync(Guid, bool, CancellationToken)"/>
    internal async Task<MadeReport?> MakeAsync(NpgsqlConnection connection, Guid survey, bool isExact, CancellationToken stop)
    {
        if (await SurveyRepository.FindAsync(connection, survey, stop) is not { } whole)
            return null;
        var seen = await floras.SeenAsync(connection, stop);
        var taxa = new TaxonIndex([.. seen.SelectMany(f => f.Taxa)]);
        var sensitive = isExact ? null : await floras.SensitiveAsync(connection, stop);
        var versions = await connection
            .Command("select id, max(version) from flora group by id")
            .ReadAllAsync(r => (Id: r.GetString(0), Version: r.GetInt32(1)), stop);
        Guid[] places = [.. whole.Survey.Places.Select(p => p.Id)];
        var context = new ReportContext(
            DateOnly.FromDateTime(clock.GetLocalNow().Date),
            taxa,
            sensitive is null ? null : sensitive.Holds,
            await NamesAsync(connection, whole.Survey, places, stop),
            await ThreatsAsync(connection, places, sensitive, stop),
            [.. seen.Select(f => $"{f.Name}, version {versions.Find(v => v.Id == f.Id).Version.ToString(CultureInfo.InvariantCulture)}")]
        );
        return new MadeReport(whole, SurveyReportWriter.Write(whole, context), taxa, sensitive);
    }

    // The last name of each plant that was named at the survey's places within its days.
    private static async Task<IReadOnlyList<ReportName>> NamesAsync(
        NpgsqlConnection connection,
        Survey survey,
        Guid[] places,
        CancellationToken stop
    ) =>
        await connection
            .Command(
                """
                select distinct on (d.plant_id) d.name, d.names, l.name, d.event_date, d.confirmation->>'grade', coalesce(k.title, ''),
                    d.question is not null, coalesce(d.confirmation->'rules'->>'id', '')
                from determination d
                join place l on l.id = d.place_id
                join plant p on p.id = d.plant_id
                left join key_version k on k.hash = d.start_key
                where d.place_id = any($1) and d.event_date between $2 and $3
                    and (p.import_id is null or not exists (select from import_withdrawal b where b.import_id = p.import_id))
                order by d.plant_id, d.number desc
                """,
                places,
                survey.From,
                survey.To
            )
            .ReadAllAsync(
                r =>
                {
                    var names = r.GetFieldValue<string[]>(1);
                    return new ReportName(
                        names.Length == 1 ? names[0] : string.Join(" or ", names),
                        r.GetString(2),
                        r.GetFieldValue<DateOnly>(3),
                        r.IsDBNull(4) ? null : Enum.Parse<Grade>(r.GetString(4), ignoreCase: true),
                        r.GetString(5),
                        names.Length > 1 || r.GetBoolean(6),
                        r.GetString(7)
                    );
                },
                stop
            );

    // A threat that names what is kept back would say where it stands.
    private static async Task<IReadOnlyList<ReportThreat>> ThreatsAsync(
        NpgsqlConnection connection,
        Guid[] places,
        SensitiveTaxa? sensitive,
        CancellationToken stop
    )
    {
        var all = await connection
            .Command(
                """
                select l.name, p.name, t.text, coalesce(t.act_by::text, ''), p.taxon
                from population_threat t
                join population p on p.id = t.population_id
                join place l on l.id = p.place_id
                where t.closes is null and p.place_id = any($1)
                    and not exists (select from population_threat c where c.closes = t.id)
                order by t.act_by nulls last, t.noted_on, t.id
                """,
                (object)places
            )
            .ReadAllAsync(
                r => (new ReportThreat(r.GetString(0), r.GetString(1), r.GetString(2), r.GetString(3)), Taxon: r.GetString(4)),
                stop
            );
        return
        [
            .. all.Where(t =>
                    sensitive is null
                    || !sensitive.Holds(t.Taxon)
                        && !sensitive.Names.Any(n => $"{t.Item1.Population} {t.Item1.Text}".Contains(n, StringComparison.OrdinalIgnoreCase))
                )
                .Select(t => t.Item1),
        ];
    }
}
