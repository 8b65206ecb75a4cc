using System.Globalization;

namespace Garten.Server.Features.Changes;

/// <summary>What a change is about, as the feed keeps it: a word, or a word with an id.</summary>
internal static class ChangeSubject
{
    public const string Keys = "keys";
    public const string Vocabulary = "vocabulary";
    private const string PlantWord = "plant:";
    private const string PopulationWord = "population:";
    private const string PlaceWord = "place:";
    private const string ErasedWord = "erased:";
    private const string SiteVisitWord = "site-visit:";
    private const string SurveyWord = "survey:";
    private const string PlotWord = "plot:";
    private const string ImportWord = "import:";
    private const string RenamedWord = "renamed:";

    /// <summary>What was passed on, and what is said of it there: devices keep none of it.</summary>
    public const string Deliveries = "deliveries";

    public static string Plant(Guid id) => PlantWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string Population(Guid id) => PopulationWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string Place(Guid id) => PlaceWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string SiteVisit(Guid id) => SiteVisitWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string Survey(Guid id) => SurveyWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string Plot(Guid id) => PlotWord + id.ToString("D", CultureInfo.InvariantCulture);

    /// <summary>Whether a survey, or a plot of one, is named.</summary>
    public static bool IsSurvey(string subject) =>
        subject.StartsWith(SurveyWord, StringComparison.Ordinal) || subject.StartsWith(PlotWord, StringComparison.Ordinal);

    public static string Import(Guid id) => ImportWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static string Renamed(Guid id) => RenamedWord + id.ToString("D", CultureInfo.InvariantCulture);

    /// <summary>Whether so much has another look that it isn't told one by one: a file of records was taken in or back, a place was
    /// changed.</summary>
    public static bool IsOfAll(string subject) =>
        subject.StartsWith(ImportWord, StringComparison.Ordinal) || subject.StartsWith(RenamedWord, StringComparison.Ordinal);

    public static string Erased(Guid id) => ErasedWord + id.ToString("D", CultureInfo.InvariantCulture);

    public static bool IsErased(string subject) => subject.StartsWith(ErasedWord, StringComparison.Ordinal);

    /// <summary>The plant that a subject names; null where it names none.</summary>
    public static Guid? PlantOf(string subject) => IdBehind(PlantWord, subject);

    /// <summary>The visit to a place that a subject names; null where it names none.</summary>
    public static Guid? SiteVisitOf(string subject) => IdBehind(SiteVisitWord, subject);

    private static Guid? IdBehind(string word, string subject) =>
        subject.StartsWith(word, StringComparison.Ordinal) && Guid.TryParse(subject.AsSpan(word.Length), out var id) ? id : null;

    public static bool IsPopulation(string subject) => subject.StartsWith(PopulationWord, StringComparison.Ordinal);

    public static bool IsPlace(string subject) => subject.StartsWith(PlaceWord, StringComparison.Ordinal);
}
