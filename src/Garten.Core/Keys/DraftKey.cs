namespace Garten.Core.Keys;

/// <summary>A lead on its way from text to key, with its places in the text.</summary>
internal sealed class DraftLead(RawLead raw)
{
    public RawLead Raw { get; } = raw;

    public LeadTail? Tail { get; set; }

    /// <summary>In an indented key: the couplet that stands directly below this lead.</summary>
    public DraftCouplet? Child { get; set; }

    public LeadDestination? Destination { get; set; }

    public IReadOnlyList<string> Statements { get; set; } = [];

    public (int Line, int Column) DestinationAt => Tail is null ? (Raw.Line, Raw.Column) : Raw.PositionAt(Tail.At);
}

/// <summary>A couplet on its way from text to key.</summary>
internal sealed class DraftCouplet(string label)
{
    public string Label { get; set; } = label;

    public List<DraftLead> Leads { get; } = [];

    public RawLead First => Leads[0].Raw;
}

/// <summary>A key on its way from text to key.</summary>
internal sealed class DraftKey(RawKey raw, KeyLayout layout, List<DraftCouplet> couplets)
{
    public RawKey Raw { get; } = raw;

    public KeyLayout Layout { get; } = layout;

    public List<DraftCouplet> Couplets { get; } = couplets;

    public Key ToKey() =>
        new(
            Raw.Title,
            Layout,
            Raw.Notes,
            [.. Couplets.Select(c => new Couplet(c.Label, [.. c.Leads.Select(l => new Lead(l.Statements, l.Destination))]))]
        );
}
