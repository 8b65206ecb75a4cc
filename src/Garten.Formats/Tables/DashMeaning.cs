namespace Garten.Formats.Tables;

/// <summary>What a dash in a cell of a table means; tables differ, so it is asked once for each.</summary>
public enum DashMeaning
{
    /// <summary>Nobody has said: such cells count as unknown, and it is asked.</summary>
    Unsaid,

    /// <summary>The plant hasn't the part: a count of 0, the state that says so, or no part at all.</summary>
    Absent,

    /// <summary>The character can't be asked of this taxon.</summary>
    Inapplicable,

    /// <summary>Nobody recorded it.</summary>
    NotRecorded,
}
