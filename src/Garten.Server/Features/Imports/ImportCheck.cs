using Garten.Core.Contracts;
using Garten.Core.Imports;
using Garten.Formats.Imports;
using Garten.Server.Commands;

namespace Garten.Server.Features.Imports;

/// <summary>What is checked of what was decided of a file.</summary>
internal static class ImportCheck
{
    private const int MostDecisions = 5_000;

    /// <summary>Checks it.</summary>
    /// <exception cref="CommandRefusedException">It can't be so.</exception>
    public static void Choices(ImportChoices it)
    {
        if (it.Fields.Count > RecordFile.MostColumns)
            throw Refusal.Of(
                422,
                "import.fields",
                "These are more columns than a file has.",
                $"Give up to {RecordFile.MostColumns}.",
                "choices"
            );
        if (it.Fields.Where(f => f != ImportField.None).GroupBy(f => f).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw Refusal.Of(
                422,
                "import.fields",
                $"Two columns are said to hold the same ({twice.Key}).",
                "Give each field to one column.",
                "choices"
            );
        if ((it.Names?.Count ?? 0) + (it.Places?.Count ?? 0) > MostDecisions)
            throw Refusal.Of(
                422,
                "import.decisions",
                "These are too many decisions.",
                $"Up to {MostDecisions} are taken. Bring the file in parts, or correct names in it.",
                "choices"
            );
        Check.Text(it.Date, "choices", "The day", Limits.LongestName, required: false);
        if (it.Date.Length > 0 && NotebookDay.Read(it.Date, it.Order).Reading != DayReading.Read)
            throw Refusal.Of(422, "import.date", $"“{it.Date}” isn’t read as a date.", "Write 2021-06-03, June 2021 or 2021.", "choices");
        if (it.Recorder is { } recorder)
        {
            Check.Ids((recorder.Id, "choices"));
            Check.Text(recorder.Name, "choices", "The recorder’s name", Limits.LongestName, required: true);
        }
        foreach (var name in it.Names ?? [])
            Check.Text(name.Meant, "choices", "A name", Limits.LongestName, required: false);
    }
}
