namespace Garten.Server.Features.Keys;

/// <summary>A flora that was made of a key's statements.</summary>
/// <param name="FloraId">Its id.</param>
public sealed record KeyFloraMade(string FloraId);
