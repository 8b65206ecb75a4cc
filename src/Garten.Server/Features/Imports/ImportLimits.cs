using System.ComponentModel.DataAnnotations;

namespace Garten.Server.Features.Imports;

/// <summary>Limits of files of records, from the section <c>Imports</c> of the configuration; checked when the server starts.</summary>
internal sealed class ImportLimits
{
    public const string Section = "Imports";

    /// <summary>Largest file, in MiB: a million records with a few words each have 300.</summary>
    [Range(1, 4096)]
    public int LargestMebibytes { get; set; } = 512;

    /// <summary>Most lines of a file.</summary>
    [Range(1, 10_000_000)]
    public int MostLines { get; set; } = 2_000_000;

    /// <summary>The folder in which files wait; empty: one in that for temporary files.</summary>
    public string Folder { get; set; } = "";

    /// <summary>Largest file in bytes.</summary>
    public long Largest => (long)LargestMebibytes << 20;
}
