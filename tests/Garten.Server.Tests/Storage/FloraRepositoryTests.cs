using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Sources;
using Garten.Testing;
using Microsoft.AspNetCore.Http;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

/// <summary>Floras as they are kept: versions, drafts, what is listed and what is loaded.</summary>
public sealed class FloraRepositoryTests : IAsyncLifetime
{
    private TestDatabase _database = null!;
    private NpgsqlDataSource _source = null!;
    private FloraRepository _floras = null!;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static readonly Character Sap = new(
        "sap",
        "sap",
        Organ.Stem,
        CharacterKind.Categorical,
        [new("clear", "clear", "", []), new("milky", "milky", "", [])],
        ["sap"],
        [],
        0.9,
        0.9,
        10,
        Tool.Eye,
        Handling.Look,
        []
    );

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        _source = NpgsqlDataSource.Create(_database.ConnectionString);
        _floras = new FloraRepository(
            _source,
            new CharacterTable([Sap with { Id = "of-the-glossary" }], [], []),
            new SourceRepository(_source, new Viewer(new HttpContextAccessor())),
            TimeProvider.System
        );
    }

    public async ValueTask DisposeAsync()
    {
        await _source.DisposeAsync();
        await _database.DisposeAsync();
    }

    private static Flora Isle(string id, params string[] species) =>
        new(
            id,
            $"Isle of {id}",
            [.. species.Select(s => new Taxon(s.ToLowerInvariant().Replace(' ', '-'), s, "", "species", "", "", "", [], ""))],
            new CharacterTable(
                [Sap],
                [
                    .. species.Select(
                        (s, i) =>
                            new TaxonDescription(
                                s.ToLowerInvariant().Replace(' ', '-'),
                                [new CharacterDescription("sap", [new StateShare(i % 2 == 0 ? "milky" : "clear", 1)])]
                            )
                    ),
                ],
                []
            )
        );

    [Fact]
    public async Task EachChangeIsAVersionAndTheSameAgainIsNone()
    {
        await _floras.PublishAsync(Isle("a", "Alvena montis"), Stop);
        await _floras.PublishAsync(Isle("a", "Alvena montis"), Stop);
        Assert.Equal(1, (await _floras.FindAsync("a", null, Stop))!.Version);
        await _floras.PublishAsync(Isle("a", "Alvena montis", "Alvena palus"), Stop);
        Assert.Equal(2, (await _floras.FindAsync("a", null, Stop))!.Version);
        // Back to what it was is a change like any other.
        await _floras.PublishAsync(Isle("a", "Alvena montis"), Stop);
        var (first, third) = ((await _floras.FindAsync("a", 1, Stop))!, (await _floras.FindAsync("a", 3, Stop))!);
        Assert.Equal((1, 3, first.ContentHash), (first.Version, third.Version, third.ContentHash));
        Assert.Null(await _floras.FindAsync("a", 4, Stop));
        Assert.Null(await _floras.FindAsync("b", null, Stop));
    }

    [Fact]
    public async Task TheListTellsTheNewestVersionAndTheDraftBesideIt()
    {
        await _floras.PublishAsync(Isle("a", "Alvena montis"), Stop);
        await _floras.PublishAsync(Isle("a", "Alvena montis", "Alvena palus"), Stop);
        await _floras.SaveDraftAsync(Isle("a", "Alvena montis", "Alvena palus", "Alvena lenta"), [], Stop);
        await _floras.SaveDraftAsync(
            Isle("b", "Brontia alta"),
            [new FloraProblem(ProblemSeverity.Warning, "column.empty", "m.csv", 1, "x", "It is empty.")],
            Stop
        );
        var list = (await _floras.ListAsync(Stop)).ToDictionary(f => f.Id);
        Assert.Equal(("Isle of a", 2, 2, 1), (list["a"].Name, list["a"].Version, list["a"].Taxa, list["a"].Characters));
        Assert.Equal((3, 3), (list["a"].Draft!.Version, list["a"].Draft!.Taxa));
        // One that was never published is only a draft.
        Assert.Equal(("Isle of b", 0, 1), (list["b"].Name, list["b"].Version, list["b"].Draft!.Version));
        Assert.Equal("column.empty", Assert.Single(list["b"].Draft!.Problems).Code);
    }

    [Fact]
    public async Task ADraftIsPublishedOnceOrSetAsideAndTakenUpAgain()
    {
        Assert.Null(await _floras.PublishDraftAsync("a", Stop));
        Assert.False(await _floras.DiscardDraftAsync("a", true, Stop));
        await _floras.SaveDraftAsync(Isle("a", "Alvena montis"), [], Stop);
        Assert.True(await _floras.DiscardDraftAsync("a", true, Stop));
        Assert.Empty(await _floras.ListAsync(Stop));
        Assert.Null(await _floras.PublishDraftAsync("a", Stop));
        Assert.True(await _floras.DiscardDraftAsync("a", false, Stop));
        Assert.Equal(1, (await _floras.PublishDraftAsync("a", Stop))!.Version);
        Assert.Null(await _floras.PublishDraftAsync("a", Stop));
        Assert.Equal(1, (await _floras.ListAsync(Stop)).Single().Version);
    }

    [Fact]
    public async Task ALaterDraftReplacesTheEarlierOne()
    {
        await _floras.SaveDraftAsync(Isle("a", "Alvena montis"), [], Stop);
        await _floras.SaveDraftAsync(Isle("a", "Alvena montis", "Alvena palus"), [], Stop);
        await _floras.PublishDraftAsync("a", Stop);
        Assert.Equal(2, (await _floras.ListAsync(Stop)).Single().Taxa);
    }

    [Fact]
    public async Task TheBinaryFormIsThatOfTheVersionAskedFor()
    {
        Assert.Null(await _floras.PackAsync("a", null, Stop));
        await _floras.SaveDraftAsync(Isle("a", "Alvena montis"), [], Stop);
        // Before it is published the draft is what there is.
        Assert.Single(ReadyFlora.Read((await _floras.PackAsync("a", null, Stop))!.Value.Pack).Pack.Taxa);
        await _floras.PublishDraftAsync("a", Stop);
        await _floras.PublishAsync(Isle("a", "Alvena montis", "Alvena palus"), Stop);
        var (newest, first, second) = (
            (await _floras.PackAsync("a", null, Stop))!.Value,
            (await _floras.PackAsync("a", 1, Stop))!.Value,
            (await _floras.PackAsync("a", 2, Stop))!.Value
        );
        Assert.Equal(2, ReadyFlora.Read(newest.Pack).Pack.Taxa.Count);
        Assert.Single(ReadyFlora.Read(first.Pack).Pack.Taxa);
        Assert.Equal(newest.ContentHash, second.ContentHash);
        Assert.NotEqual(newest.ContentHash, first.ContentHash);
        Assert.Null(await _floras.PackAsync("a", 7, Stop));
    }

    [Fact]
    public async Task WhatIsMadeReadyIsTheNewestAndTheSameForAll()
    {
        await _floras.PublishAsync(Isle("a", "Alvena montis", "Alvena palus"), Stop);
        var ready = await _floras.ReadyAsync("a", Stop);
        Assert.Same(ready, await _floras.ReadyAsync("a", Stop));
        Assert.Equal(2, ready!.Sifter.Columns.Taxa.Count);
        Assert.NotNull((await _floras.BookAsync("a", Stop))!.Page("alvena-palus", new Core.Keys.KeyShelf([]), new DateOnly(2026, 6, 1)));
        await _floras.PublishAsync(Isle("a", "Alvena montis", "Alvena palus", "Alvena lenta"), Stop);
        Assert.Equal(3, (await _floras.ReadyAsync("a", Stop))!.Sifter.Columns.Taxa.Count);
        Assert.Null(await _floras.ReadyAsync("b", Stop));
    }

    [Fact]
    public async Task KeysAreReadByTheFlorasThatHaveTheirTaxaAndElseByTheGlossary()
    {
        await _floras.PublishAsync(Isle("a", "Alvena montis"), Stop);
        await _floras.PublishAsync(Isle("b", "Brontia alta"), Stop);
        var (taxa, table) = await _floras.ForKeysAsync(["Brontia alta", "Zedia prima"], Stop);
        Assert.Equal(["Brontia alta"], taxa.Select(t => t.Name));
        Assert.Equal(["sap"], table.Characters.Select(c => c.Id));
        (taxa, table) = await _floras.ForKeysAsync(["Zedia prima"], Stop);
        Assert.Empty(taxa);
        Assert.Equal(["of-the-glossary"], table.Characters.Select(c => c.Id));
        Assert.Equal(["Alvena montis", "Brontia alta"], (await _floras.TaxaAsync(Stop)).Select(t => t.Name));
    }

    [Fact]
    public async Task PublishedByManyAtOnceEachVersionIsThereOnce()
    {
        await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(async i =>
                {
                    // Two that come at the same moment want the same number: one of them is refused and has to try again.
                    for (var tries = 0; tries < 20; tries++)
                    {
                        try
                        {
                            await _floras.PublishAsync(Isle("a", $"Alvena s{i}"), Stop);
                            return;
                        }
                        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.UniqueViolation) { }
                    }
                })
        );
        Assert.Equal(6, (await _floras.ListAsync(Stop)).Single().Version);
    }

    /// <summary>The binary form is made once and kept with the core that made it; a draft's too.</summary>
    [Fact]
    public async Task TheBinaryFormIsMadeOnceAndKept()
    {
        await _floras.PublishAsync(Isle("kept", "Vellorna alba", "Vellorna nigra"), Stop);
        await _floras.SaveDraftAsync(Isle("draft", "Vellorna rubra"), [], Stop);
        await _floras.PrepareAsync(Stop);
        Assert.Equal(2L, await _source.CreateCommand("select count(*) from flora_columns").ExecuteScalarAsync(Stop));
        var made = (await _floras.PackAsync("kept", null, Stop))!.Value;
        Assert.Equal(made.Pack, (await _floras.PackAsync("kept", 1, Stop))!.Value.Pack);
        Assert.Equal(
            made.Pack,
            await _source
                .CreateCommand($"select bytes from flora_columns where content_hash = '{made.ContentHash}'")
                .ExecuteScalarAsync(Stop)
        );
        Assert.NotNull(await _floras.PackAsync("draft", 1, Stop));
        Assert.Null(await _floras.PackAsync("draft", 2, Stop));
        Assert.Null(await _floras.PackAsync("nowhere", null, Stop));
        Assert.Equal(2, (await _floras.ReadyAsync("kept", Stop))!.Pack.Taxa.Count);
        // Published anew it has a form of its own; the newest one is asked for.
        await _floras.PublishAsync(Isle("kept", "Vellorna alba"), Stop);
        Assert.NotEqual(made.ContentHash, (await _floras.PackAsync("kept", null, Stop))!.Value.ContentHash);
        Assert.Equal(made.ContentHash, (await _floras.PackAsync("kept", 1, Stop))!.Value.ContentHash);
    }
}
