using Garten.Core.Floras;
using Garten.Core.Keys;

namespace Garten.Core.Contracts;

/// <summary>One key of a checked text, in short.</summary>
/// <param name="Title">Its title; empty where the text gives none.</param>
/// <param name="Layout"><c>bracketed</c> or <c>indented</c>.</param>
/// <param name="Couplets">How many couplets it has.</param>
/// <param name="Taxa">The names it can end at, without authorship, in the order of the text.</param>
public sealed record CheckedKey(string Title, KeyLayout Layout, int Couplets, IReadOnlyList<string> Taxa);

/// <summary>What the check of a key text found.</summary>
public sealed record KeyCheckResponse(IReadOnlyList<CheckedKey> Keys, IReadOnlyList<KeyProblem> Problems)
{
    /// <summary>The reading in short.</summary>
    public static KeyCheckResponse Of(KeyReading reading)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return new([.. reading.Keys.Select(k => new CheckedKey(k.Title, k.Layout, k.Couplets.Count, [.. k.Taxa().Select(t => t.Name)]))], reading.Problems);
    }
}

/// <summary>A text to read, as the browser's worker takes it.</summary>
public sealed record ReadKeyTextRequest(string Text);

/// <summary>What walks in the worker go through.</summary>
/// <param name="Versions">Key versions, newest first.</param>
/// <param name="Taxa">The taxa of the flora.</param>
public sealed record Shelf(IReadOnlyList<KeyVersion> Versions, IReadOnlyList<Taxon> Taxa);

/// <summary>A walk through keys that the worker holds on its shelf.</summary>
/// <param name="Start">Hash of the version to start with.</param>
/// <param name="Answers">The answers given so far.</param>
public sealed record WalkRequest(string Start, IReadOnlyList<TrailAnswer> Answers);
