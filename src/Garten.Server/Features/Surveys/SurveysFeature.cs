using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Formats.Surveys;
using Garten.Server.Features.Archive;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Surveys;

/// <summary>Surveys with their plots, and what leaves the program of them.</summary>
internal sealed class SurveysFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const string Html = "text/html; charset=utf-8";
    private const string Zip = "application/zip";
    private const string Xlsx = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";
    private const string GeoJson = "application/geo+json";

    public void Add(IServiceCollection services) => services.AddSingleton<SurveyRepository>().AddSingleton<SurveyReports>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/surveys", (SurveyRepository surveys, CancellationToken stop) => surveys.ListAsync(stop))
            .Produces<IReadOnlyList<SurveySummary>>()
            .WithName("listSurveys")
            .WithSummary("Surveys in short, newest first.");

        api.MapGet("/surveys/{id:guid}", async (Guid id, SurveyRepository surveys, CancellationToken stop) =>
                await surveys.FindAsync(id, stop) is { } whole ? Results.Ok(whole) : Unknown()
            )
            .Produces<SurveyWhole>()
            .Produces<ProblemReport>(404, Problem)
            .Exact()
            .WithName("getSurvey")
            .WithSummary(
                "A survey with its plots, what was recorded in them, the visits that belong to it and the reports that were kept."
            );

        api.MapGet("/surveys/{id:guid}/report", async (Guid id, SurveyReports reports, CancellationToken stop) =>
                await reports.MakeAsync(id, isExact: false, stop) is { } made ? Results.Ok(made.Report) : Unknown()
            )
            .Produces<SurveyReport>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getSurveyReport")
            .WithSummary(
                "The report of a survey as it stands now: sections, sentences with their keys, tables. Sensitive taxa are kept back."
            );

        api.MapGet("/reports/{id:guid}.html", async (Guid id, HttpContext context, SurveyRepository surveys, CancellationToken stop) =>
                await surveys.ReportAsync(id, stop) is var (page, _)
                    ? PrintedPages.Of(context, page)
                    : Problems.Result(404, "report.unknown", "There is no report of this id.", "Choose one of the survey’s reports.", "id")
            )
            .Produces<string>(200, Html)
            .Produces<ProblemReport>(404, Problem)
            .WithName("getKeptReport")
            .WithSummary("A report as it was kept: later data never change it.");

        foreach (var isExact in new[] { false, true })
            Files(api, isExact);
    }

    private static IResult Unknown() =>
        Problems.Result(404, "survey.unknown", "There is no survey of this id.", "Choose one of the list.", "id");

    // Each file is there for the public, and with everything exact for one's own keeping.
    private static void Files(RouteGroupBuilder api, bool isExact)
    {
        void Add(
            string file,
            string type,
            string name,
            string summary,
            Func<MadeReport, HttpContext, CancellationToken, Task<IResult>> answer
        )
        {
            var route = api.MapGet(
                    $"{(isExact ? "/exact" : "")}/surveys/{{id:guid}}/{file}",
                    async (Guid id, HttpContext context, SurveyReports reports, Turnstile turns, CancellationToken stop) =>
                    {
                        using var turn = await turns.ExportAsync(stop);
                        return await reports.MakeAsync(id, isExact, stop) is { } made ? await answer(made, context, stop) : Unknown();
                    }
                )
                .Produces<byte[]>(200, type)
                .Produces<ProblemReport>(404, Problem)
                .Produces<ProblemReport>(503, Problem)
                .WithName((isExact ? "exportExact" : "export") + name)
                .WithSummary(summary + (isExact ? " With the exact places of sensitive taxa: only for one’s own keeping." : ""));
            if (isExact)
                route.Exact();
        }

        Add("report.html", "text/html", "SurveyReport", "The report of a survey as one page that needs nothing else.", (made, context, _) =>
            Task.FromResult(PrintedPages.Of(context, ReportPage.Write(made.Report)))
        );
        Add("tables.xlsx", Xlsx, "SurveyTables", "The tables of a survey as a workbook.", (made, _, _) =>
            Task.FromResult(Results.File(SurveyWorkbook.Write(Tables(made)), Xlsx, Named(made, isExact, "xlsx")))
        );
        Add("records.geojson", GeoJson, "SurveyShapes", "Places, plots and records of a survey as GeoJSON.", (made, _, _) =>
        {
            using var bytes = new MemoryStream();
            SurveyShapes.Write(bytes, made.Whole, made.Sensitive);
            return Task.FromResult(Results.File(bytes.ToArray(), GeoJson, Named(made, isExact, "geojson")));
        });
        Add(
            "datapackage.zip",
            Zip,
            "SurveyPackage",
            "The tables of a survey as a data package: CSV with what each column is.",
            async (made, _, stop) =>
            {
                using var bytes = new MemoryStream();
                await SurveyPackage.WriteAsync(
                    bytes,
                    made.Whole.Survey.Id,
                    made.Report.Title,
                    made.Whole.Survey.Question,
                    made.Report.MadeOn,
                    Tables(made),
                    stop
                );
                return Results.File(bytes.ToArray(), Zip, Named(made, isExact, "zip"));
            }
        );
        Add(
            "archive.zip",
            Zip,
            "SurveyArchive",
            "Visits, lists, plots and plants of a survey as a Darwin Core Archive.",
            async (made, context, stop) =>
            {
                using var bytes = new MemoryStream();
                await context
                    .RequestServices.GetRequiredService<ArchiveExport>()
                    .WriteAsync(bytes, new ArchiveScope(null, made.Whole), isExact, TextLicence.Unsaid, stop);
                return Results.File(bytes.ToArray(), Zip, Named(made, isExact, "archive.zip"));
            }
        );
    }

    private static IReadOnlyList<DataTable> Tables(MadeReport made) => new SurveyTables(made.Whole, made.Taxa, made.Sensitive).All();

    private static string Named(MadeReport made, bool isExact, string ending)
    {
        var name = string.Concat(
                made.Report.Title.ToLower(CultureInfo.InvariantCulture).Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')
            )
            .Trim('-');
        return $"{(name.Length > 0 ? name : "survey")}{(isExact ? "-exact" : "")}.{ending}";
    }
}
