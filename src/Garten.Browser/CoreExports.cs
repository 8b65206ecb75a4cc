using System.Runtime.InteropServices.JavaScript;
using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Core.Packs;

namespace Garten.Browser;

/// <summary>The core for the browser's worker: calls as JSON, what it holds in its binary forms. What can be asked is declared in <see
/// cref="CoreCalls"/>.</summary>
public static partial class CoreExports
{
    private static readonly CoreSession Session = new();

    /// <summary>Answers one of the core's calls.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="request">The request as JSON.</param>
    [JSExport]
    public static string Call(string name, string request) => CoreCalls.Named(name).Answer(request, Session);

    /// <summary>Puts key versions and taxa in their binary form on the shelf that walks go through, in place of those that were
    /// there.</summary>
    [JSExport]
    public static void FillShelf(byte[] shelf) => Session.Fill(ShelfFile.Read(shelf));

    /// <summary>Takes the vocabulary of parts and qualities in its binary form, in place of the one that was there.</summary>
    [JSExport]
    public static void LoadVocabulary(byte[] vocabulary) => Session.Botany = VocabularyFile.Read(vocabulary);

    /// <summary>Takes a flora in its binary form, in place of the one that was there. Answers with its id.</summary>
    [JSExport]
    public static string LoadFlora(byte[] pack) => (Session.Flora = ReadyFlora.Read(pack)).Pack.Id;

    /// <summary>Works out some more of what later answers need; false when all is ready.</summary>
    /// <param name="characters">How many characters are made ready at most: as many as a call may wait for.</param>
    [JSExport]
    public static bool WarmUp(int characters) => Session.WarmUp(characters);
}
