using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Garten.Core.Contracts;

namespace Garten.Formats;

/// <summary>Why a file of what waited on a device can't be taken in, as a sentence for whoever has it.</summary>
public sealed class HandOverException(string message) : Exception(message);

/// <summary>What waited on a device, as it was saved there; see docs/formats.md.</summary>
/// <param name="Device">The device; null where the file doesn't name one.</param>
/// <param name="Commands">The commands, in the order in which they were made, each as it was written.</param>
public sealed record HandOverFile(Guid? Device, IReadOnlyList<JsonElement> Commands)
{
    private const string Format = "garten-hand-over";
    private const int Version = 1;

    /// <summary>The largest file, in characters. A day out is some hundred kilobytes.</summary>
    public const int LargestText = 50_000_000;

    // Ten times as many as files are locked with: one that asks for more would only keep the machine busy.
    private const int MostRounds = 6_000_000;
    private const int KeyBytes = 32;
    private const int TagBytes = 16;

    /// <summary>Reads a file; a locked one is opened (AES-256-GCM, its key by PBKDF2 with SHA-256).</summary>
    /// <param name="text">The text of the file.</param>
    /// <param name="phrase">The pass-phrase; not looked at where the file isn't locked.</param>
    /// <exception cref="HandOverException">It is another file, of a newer version, cut off, locked with another phrase, or a command in it
    /// can't be read.</exception>
    public static HandOverFile Read(string text, string phrase)
    {
        var root = Parsed(text);
        if (root.TryGetProperty("locked", out var locked))
            root = Parsed(Unlocked(locked, phrase));
        if (!root.TryGetProperty("commands", out var commands) || commands.ValueKind != JsonValueKind.Array)
            throw new HandOverException("Nothing stands in this file that could be taken in.");
        var all = commands.EnumerateArray().Select(CommandOf).ToList();
        if (new HandedCommands(all).Unreadable() is [var first, ..])
            throw new HandOverException(
                $"Entry {first + 1} of this file can’t be read. Nothing was taken in; a newer version of Garten may know it."
            );
        return new HandOverFile(
            root.TryGetProperty("device", out var device)
            && device.ValueKind == JsonValueKind.String
            && Guid.TryParse(device.GetString(), out var id)
                ? id
                : null,
            all
        );
    }

    private static readonly JsonElement Nothing = JsonElement.Parse("null");

    private static JsonElement CommandOf(JsonElement entry) =>
        entry.ValueKind == JsonValueKind.Object && entry.TryGetProperty("command", out var command) ? command : Nothing;

    private static JsonElement Parsed(string text)
    {
        if (text.Length > LargestText)
            throw new HandOverException("This file is far too large for what waits on a device.");
        JsonElement root;
        try
        {
            root = JsonElement.Parse(text);
        }
        catch (JsonException)
        {
            throw new HandOverException("This isn’t a file that Garten saved: it is cut off, or another kind of file.");
        }
        if (
            root.ValueKind != JsonValueKind.Object
            || !root.TryGetProperty("format", out var format)
            || format.ValueKind != JsonValueKind.String
            || format.GetString() != Format
        )
            throw new HandOverException("This isn’t a file of what waits on a device.");
        return
            root.TryGetProperty("version", out var version)
            && version.ValueKind == JsonValueKind.Number
            && version.TryGetInt32(out var number)
            && number == Version
            ? root
            : throw new HandOverException("A newer version of Garten saved this file. Take it in with that one.");
    }

    private static string Unlocked(JsonElement locked, string phrase)
    {
        if (phrase.Length == 0)
            throw new HandOverException("This file is locked: give its pass-phrase.");
        byte[] salt,
            iv,
            data;
        int rounds;
        try
        {
            salt = locked.GetProperty("salt").GetBytesFromBase64();
            iv = locked.GetProperty("iv").GetBytesFromBase64();
            data = locked.GetProperty("data").GetBytesFromBase64();
            rounds = locked.GetProperty("rounds").GetInt32();
        }
        catch (Exception bent) when (bent is KeyNotFoundException or FormatException or InvalidOperationException)
        {
            throw NotSoLocked();
        }
        if (rounds is < 1 or > MostRounds || data.Length < TagBytes || iv.Length != AesGcm.NonceByteSizes.MaxSize)
            throw NotSoLocked();
        var plain = new byte[data.Length - TagBytes];
        try
        {
            using var key = new AesGcm(
                Rfc2898DeriveBytes.Pbkdf2(Encoding.UTF8.GetBytes(phrase), salt, rounds, HashAlgorithmName.SHA256, KeyBytes),
                TagBytes
            );
            key.Decrypt(iv, data.AsSpan(..^TagBytes), data.AsSpan(^TagBytes..), plain);
        }
        catch (AuthenticationTagMismatchException)
        {
            throw new HandOverException("This pass-phrase doesn’t open it, or the file was changed.");
        }
        return Encoding.UTF8.GetString(plain);
    }

    private static HandOverException NotSoLocked() => new("This file isn’t locked in a way that Garten locks files.");
}
