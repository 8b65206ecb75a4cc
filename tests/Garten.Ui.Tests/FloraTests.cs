using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The flora as it is read and brought: plates, glossary, import.</summary>
public sealed class FloraTests(GartenSite site) : IClassFixture<GartenSite>
{
    [Fact]
    public void WhatWasLostOnItsWayIsAskedForAgainByItself()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane");
        browser.UntilText("75 taxa.");
        browser.Lose("*/api/v1/floras*");
        browser.Go("/flora/torvane/taxa/vellorna-alata");
        browser.UntilText("can’t");
        browser.Lose();
        browser.UntilText("Know it by");
    }

    [Fact]
    public void ATaxonIsFoundByAPartOfItsNameAndShownWithWhatSeparatesIt()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane");
        browser.UntilText("75 taxa.");
        browser.ShouldBeAccessible();
        browser.Type("Any name", "al sy");
        browser.UntilText("1 taxon fits.");
        browser.Click("Allora sylvatica");
        browser.UntilText("Taken for");
        browser.UntilText("Convessa fallax");
        browser.UntilText("Know it by");
        browser.ShouldBeAccessible();
        var typical = browser.Find("main svg[role=img]").GetAttribute("innerHTML");
        browser.Click("Large");
        browser.Until(() => browser.Find("main svg[role=img]").GetAttribute("innerHTML") != typical, "another plate");
        browser.Click("Convessa fallax");
        browser.UntilText("poisonous");
        browser.UntilText("kind of fruit: berry");
        browser.Click("kind of fruit: berry");
        browser.UntilText("several seeds in flesh");
        browser.ShouldBeAccessible();
        browser.Press(Keys.Escape);
        browser.ShouldHaveNoErrors();
    }

    // Qualities whose states have no form: the feel of a substance, a smell, how long something stays, what something is rooted in.
    private static readonly string[] Formless = ["texture", "scent", "sap", "persistence", "substrate", "light"];

    // Single states that have no form of their own.
    private static readonly string[] FormlessStates =
    [
        "growth-form=woody",
        "growth-form=parasite",
        "growth-form=succulent",
        "sex-distribution=polygamous",
        "underground-kind=corm",
        "habitat=mire",
        "habitat=arable",
        "habitat=waste",
    ];

    /// <summary>Drawn at 96 pixels no two states of a quality look alike, and all that have a form are drawn.</summary>
    [Fact]
    public void TheStatesOfAQualityAreDrawnAndLookUnlike()
    {
        var browser = site.Browse();
        browser.Open("/glossary/all");
        browser.UntilText("102 qualities");
        browser.Until(() => browser.All("main section[aria-label]").Count == 102, "all qualities");
        var said = Compared(browser);
        Assert.True(said["alike"]!.AsArray().Count == 0, said["alike"]!.ToJsonString());
        var states = Garten.Formats.ShippedVocabulary.Botany.Vocabulary.Qualities.SelectMany(q =>
            q.States.Select(s => (Id: $"{q.Id}={s.Id}", Named: $"{q.Id}={s.Name}", Quality: q.Id))
        );
        var allowed = states
            .Where(s => Formless.Contains(s.Quality) || FormlessStates.Contains(s.Id))
            .Select(s => s.Named)
            .ToHashSet(StringComparer.Ordinal);
        Assert.DoesNotContain(said["missing"]!.AsArray().Select(m => (string)m!), m => !allowed.Contains(m));
        Assert.True((int)said["drawn"]! >= 600, said.ToJsonString());
        // On each of the parts that are drawn, since a drawing may look otherwise there.
        foreach (var part in BaseParts)
        {
            var qualities = new Core.Contracts.PartQualitiesRequest(part).Find(Garten.Formats.ShippedVocabulary.Botany).Count;
            browser.Go("/glossary/all?part=" + part);
            browser.UntilText($"{qualities} qualities;");
            browser.Until(() => browser.All("main section[aria-label]").Count == qualities, "all qualities of " + part);
            said = Compared(browser);
            Assert.True(said["alike"]!.AsArray().Count == 0, $"{part}: {said["alike"]!.ToJsonString()}");
        }
        browser.ShouldHaveNoErrors();
    }

    // The parts that other parts are drawn after.
    private static readonly string[] BaseParts =
    [
        "leaf",
        "petiole",
        "stem",
        "twig",
        "bud",
        "bark",
        "inflorescence",
        "flower",
        "sepal",
        "petal",
        "stamen",
        "ovary",
        "fruit",
        "seed",
        "sheath",
        "frond",
    ];

    // The drawings of each quality on the page against each other, as 96 pixels; what was compared before isn't again.
    private static System.Text.Json.Nodes.JsonNode Compared(Browser browser)
    {
        var report = browser.Run(
            """
            window.comparedBefore??=new Set();
            const canvas=document.createElement('canvas'),at=canvas.getContext('2d',{willReadFrequently:true});
            // One picture with all of a quality side by side: each picture costs as much as a small page.
            const rasters=async svgs=>{
              const strip=document.createElementNS('http://www.w3.org/2000/svg','svg');
              strip.setAttribute('width',96*svgs.length);strip.setAttribute('height',96);
              svgs.forEach((svg,n)=>{
                const copy=svg.cloneNode(true);copy.setAttribute('x',96*n);copy.setAttribute('y',0);
                copy.setAttribute('width','96');copy.setAttribute('height','96');copy.style.color='#000';strip.append(copy);
              });
              const image=new Image();
              image.src='data:image/svg+xml;charset=utf-8,'+encodeURIComponent(new XMLSerializer().serializeToString(strip));
              await image.decode();
              canvas.width=96*svgs.length;canvas.height=96;
              at.fillStyle='#fff';at.fillRect(0,0,canvas.width,96);at.drawImage(image,0,0);
              return svgs.map((_,n)=>new Uint32Array(at.getImageData(96*n,0,96,96).data.buffer));
            };
            const differs=(a,b)=>Math.abs((a&255)-(b&255))+Math.abs((a>>8&255)-(b>>8&255))+Math.abs((a>>16&255)-(b>>16&255))>20;
            const alike=[],missing=[];let drawn=0;
            for(const section of document.querySelectorAll('main section[aria-label]')){
              const id=section.querySelector('code').textContent.split('.')[1];
              const items=[...section.querySelectorAll('li')].map(li=>[li.querySelector('p').textContent,li.querySelector(':scope > div > svg')]);
              const whole=id+items.map(([,svg])=>svg?.innerHTML??'').join('|');
              const isKnown=window.comparedBefore.has(whole);
              window.comparedBefore.add(whole);
              missing.push(...items.filter(([,svg])=>!svg).map(([name])=>id+'='+name));
              const shown=items.filter(([,svg])=>svg);drawn+=shown.length;
              if(isKnown||shown.length===0) continue;
              const seen=await rasters(shown.map(([,svg])=>svg));
              seen.forEach((own,n)=>{
                for(let m=0;m<n;m++){
                  let differ=0;
                  for(let i=0;i<own.length&&differ<40;i++) if(own[i]!==seen[m][i]&&differs(own[i],seen[m][i])) differ++;
                  if(differ<40) alike.push(id+': '+shown[n][0]+' and '+shown[m][0]);
                }
              });
            }
            return JSON.stringify({drawn,alike,missing})
            """
        );
        return System.Text.Json.Nodes.JsonNode.Parse(report)!;
    }

    /// <summary>A part and a quality are found on the drawn plant and by a word; a curator defines a state, and it is found at
    /// once.</summary>
    [Fact]
    public void AStateIsDefinedOnAPageAndFoundAtOnce()
    {
        var browser = site.Browse();
        browser.Open("/glossary");
        browser.Click("petiole");
        browser.UntilText("The stalk of a leaf");
        browser.Click("cross-section of the petiole");
        browser.UntilText("grooved above");
        browser.UntilText("petiole.section");
        browser.ShouldBeAccessible();
        browser.Click("Define something");
        browser.Find("[role=combobox][aria-labelledby*='Quality'], main form [role=combobox]").Click();
        browser.Click("kind of hairs");
        browser.Type("Name of the state", "anchor-shaped");
        browser.Type("Other words for it", "ancorate");
        browser.Click("Define it");
        browser.UntilText("Say in a sentence what it means.");
        browser.Type("What it means", "Two arms that bend back.");
        browser.ShouldBeAccessible();
        browser.Click("Define it");
        browser.UntilText("“anchor-shaped” is part of the vocabulary from now on.");
        browser.Click("Back");
        browser.Type("Find any term, of any part", "rachis ancorate");
        browser.UntilText("kind of hairs of the rachis: anchor-shaped");
        browser.ShouldHaveNoErrors();
    }

    // Two states that differ show it: no two states of a character have the same drawing.
    [Fact]
    public void EveryStateIsDrawnAndNoTwoStatesOfACharacterAlike()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane/glossary");
        browser.UntilText("121 characters, 444 states.");
        // The drawings come behind the page.
        browser.Until(
            () => browser.Run("return String(document.querySelectorAll('main section[aria-label] svg').length>=444)") == "true",
            "the drawings"
        );
        browser.ShouldBeAccessible();
        var report = browser.Run(
            """
            const alike=[];let drawn=0;
            for(const s of document.querySelectorAll('main section[aria-label]')){
              const all=[...s.querySelectorAll('svg')].filter(v=>!v.parentElement.closest('svg')).map(v=>v.innerHTML);drawn+=all.length;
              if(new Set(all).size<all.length)alike.push(s.getAttribute('aria-label'));
            }
            return drawn+' drawn; alike: '+alike.join(', ')
            """
        );
        Assert.Equal("444 drawn; alike: ", report);
        browser.Type("Find a term", "cordate");
        browser.UntilText("1 character,");
        browser.Click("▸ base of the leaf");
        browser.UntilText("also: cordate");
        browser.UntilText("Mind: Look at several leaves");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void ATraitTableIsCheckedMendedKeptAndPublished()
    {
        var file = Path.Combine(Path.GetTempPath(), $"garten-{Guid.NewGuid():N}.csv");
        File.WriteAllText(file, "Species;Leaf length (cm);Leaf shape;remarks\nAlvena montis;4–7;ovate;x\nAlvena palus;9–6;elliptic;y\n");
        try
        {
            var browser = site.Browse();
            browser.Open("/flora/bring");
            browser.Find("input[type=file][name=matrix]");
            browser.ShouldBeAccessible();
            browser.Find("input[type=file][name=matrix]").SendKeys(file);
            browser.Click("See how they are read");
            browser.UntilText("2 taxa, 3 characters");
            browser.UntilText("above the high bound");
            browser.ShouldBeAccessible();
            browser.Click("Leave out: remarks");
            browser.Click("Read again with these headings");
            browser.UntilText("2 taxa, 2 characters");
            var name = browser.Find("main input[type=text]");
            name.SendKeys(Keys.Control + "a" + Keys.Null + "Alven hills");
            browser.Click("Keep it as a draft");
            browser.UntilText("Kept as a draft: 2 taxa, 2 characters");
            browser.Click("Publish Alven hills");
            browser.UntilText("Published as version 1.");
            browser.Click("Open it");
            browser.UntilText("Flora of Alven hills");
            browser.Click("Alvena montis");
            browser.UntilText("Description");
            browser.ShouldHaveNoErrors();
        }
        finally
        {
            File.Delete(file);
        }
    }

    /// <summary>What a column may mean stands beside the question as buttons; one tap reads the table again.</summary>
    [Fact]
    public void AColumnIsSaidToBeWhatItIsByATap()
    {
        var file = Path.Combine(Path.GetTempPath(), $"garten-{Guid.NewGuid():N}.csv");
        File.WriteAllText(file, "Species,seed.arrangement,vein number\nAlvena montis,opposite,5\nAlvena palus,spiral,7\n");
        try
        {
            var browser = site.Browse();
            browser.Open("/flora/bring");
            browser.Find("input[type=file][name=matrix]").SendKeys(file);
            browser.Click("See how they are read");
            browser.UntilText("“spiral” and “opposite” of the seed is unusual. Is it meant so?");
            browser.UntilText("The column “vein number” is read as “number of veins of the leaf”");
            browser.ShouldBeAccessible();
            browser.Click("Yes: arrangement of the seed (for the column seed.arrangement)");
            browser.UntilText("0 in the way");
            browser.Click("number of veins of the fruit (for the column vein number)");
            browser.UntilText("3 · Nothing is wrong");
            browser.ShouldHaveNoErrors();
        }
        finally
        {
            File.Delete(file);
        }
    }

    /// <summary>Two taxa of a flora that isn't the usual one, alike but for the hairs of the rachis: the one row of their contrast,
    /// drawn.</summary>
    [Fact]
    public async Task TaxaOfAnotherFloraAreContrastedInTheirOwn()
    {
        var stop = TestContext.Current.CancellationToken;
        using var form = new MultipartFormDataContent
        {
            { new StringContent("Two isles"), "name" },
            {
                new ByteArrayContent(
                    "taxon,rachis hairs,leaf shape\nVellorna calva,glabrous,ovate\nVellorna mollis,densely hairy,ovate\n"u8.ToArray()
                ),
                "matrix",
                "matrix.csv"
            },
            {
                new ByteArrayContent("taxon,look_alikes\nVellorna calva,Vellorna mollis\nVellorna mollis,Vellorna calva\n"u8.ToArray()),
                "taxa",
                "taxa.csv"
            },
        };
        (await site.Client.PostAsync(new Uri("/api/v1/floras", UriKind.Relative), form, stop)).EnsureSuccessStatusCode();
        (await site.Client.PostAsync(new Uri("/api/v1/floras/two-isles/publish", UriKind.Relative), null, stop)).EnsureSuccessStatusCode();
        var browser = site.Browse();
        browser.Open("/flora/two-isles/taxa/vellorna-calva");
        browser.Click("Contrast them");
        browser.UntilText("rachis hairs");
        browser.UntilText("densely hairy");
        browser.UntilText("hairless");
        browser.Until(() => browser.All("main svg").Count > 1, "the drawings of the row");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    /// <summary>A server that is there but fails for a moment, at what a page can't do without: the page says so, and goes on by
    /// itself.</summary>
    [Fact]
    public void WhatTheServerFailedAtIsAskedForAgainByItself()
    {
        var browser = site.Browse();
        browser.BeforeEachPage(
            "const real=fetch;window.isFailing=true;window.fetch=(r,...a)=>window.isFailing&&/describe|columns|contrast/.test(r.url??r)?Promise.resolve(new Response('{}',{status:503})):real(r,...a)"
        );
        browser.Open("/flora/torvane/taxa/vellorna-alata");
        browser.UntilText("Know it by");
        browser.Click("Contrast them");
        browser.UntilText("can’t be fetched just now");
        browser.Run("window.isFailing=false;return ''");
        browser.UntilText("Where keys part them");
    }

    // Has every plant in hand on the device held against a flora that isn't here.
    private const string HeldAgainstAnother = """
        const db=await new Promise(ok=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result)});
        const walks=db.transaction('walks','readwrite').objectStore('walks');
        const all=await new Promise(ok=>{const r=walks.getAll();r.onsuccess=()=>ok(r.result)});
        for(const it of all)walks.put({...it,floraId:'nowhere'});
        await new Promise(ok=>{walks.transaction.oncomplete=ok});
        db.close();
        return String(all.length);
        """;

    /// <summary>A plant whose flora isn't here any more is held against another one; the page doesn't wait for what can't come.</summary>
    [Fact]
    public void APlantWhoseFloraIsGoneIsHeldAgainstAnotherOne()
    {
        var browser = site.Browse();
        browser.Open("/flora/torvane/taxa/vellorna-alata");
        browser.UntilText("Know it by");
        browser.Click("Contrast them");
        browser.UntilText("Where keys part them");
        var walk = browser.Path[..browser.Path.LastIndexOf('/')];
        Assert.Equal("1", browser.Run(HeldAgainstAnother));
        foreach (var way in new[] { "contrast", "confirm", "sift" })
        {
            browser.Open($"{walk}/{way}");
            browser.UntilText("isn’t here. What you have seen is kept");
        }
        browser.ShouldBeAccessible();
        browser.Click("Torvane");
        browser.UntilText("Nothing seen yet");
        Assert.DoesNotContain("Which flora?", browser.Text, StringComparison.Ordinal);
        browser.Open("/flora/nowhere");
        browser.UntilText("There is no such flora here.");
        browser.Open("/flora/nowhere/crib");
        browser.UntilText("There is no such flora here.");
    }

    /// <summary>States that nothing draws have no figure at all, rather than one and the same for each.</summary>
    [Fact]
    public async Task ACharacterThatNothingDrawsHasNoFigures()
    {
        var stop = TestContext.Current.CancellationToken;
        using var form = new MultipartFormDataContent
        {
            { new StringContent("Nut isle"), "name" },
            {
                new ByteArrayContent(
                    "taxon,sheen of the nut,scent of the bark\nAlvena rara,dull,sweet\nAlvena montis,glossy,sour\nAlvena alta,greasy,none\n"u8.ToArray()
                ),
                "matrix",
                "matrix.csv"
            },
        };
        (await site.Client.PostAsync(new Uri("/api/v1/floras", UriKind.Relative), form, stop)).EnsureSuccessStatusCode();
        (await site.Client.PostAsync(new Uri("/api/v1/floras/nut-isle/publish", UriKind.Relative), null, stop)).EnsureSuccessStatusCode();
        var browser = site.Browse();
        browser.Open("/flora/nut-isle/glossary");
        browser.UntilText("sheen of the nut");
        browser.UntilText("greasy");
        Assert.Empty(browser.All("main button svg[viewBox='0 0 80 80']"));
        browser.Go("/flora/torvane/glossary");
        browser.UntilText("444 states");
        Assert.True(browser.All("main button svg[viewBox='0 0 80 80']").Count > 100);
    }

    [Fact]
    public void OnAPhonePlatesGlossaryAndImportFit()
    {
        var browser = site.Browse(390, 844, touch: true);
        foreach (
            var (path, text) in new[]
            {
                ("/flora/torvane", "75 taxa."),
                ("/flora/torvane/taxa/vellorna-alata", "Know it by"),
                ("/flora/torvane/glossary", "444 states"),
                ("/flora/bring", "1 · Files"),
            }
        )
        {
            browser.Open(path);
            browser.UntilText(text);
            browser.ShouldFitTheScreen();
            browser.ShouldBeAccessible();
        }
    }
}
