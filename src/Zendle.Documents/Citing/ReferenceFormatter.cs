using System.Text.Json;
using Ganss.Xss;
using Microsoft.ClearScript;
using Microsoft.ClearScript.V8;
using Zendle.Core.Citing;

namespace Zendle.Documents.Citing;

/// <summary>A formatted reference.</summary>
/// <param name="Id">The item's id in its CSL-JSON.</param>
/// <param name="Html">As HTML: only i, b, sup, sub, span with a class, and div; nothing that acts.</param>
/// <param name="Text">As plain text.</param>
public sealed record FormattedReference(string Id, string Html, string Text);

/// <summary>A bibliography in the order of its style.</summary>
/// <param name="References">The references.</param>
/// <param name="InNotes">Whether the style has no list of references, so that each is as its note would have
/// it.</param>
public sealed record FormattedBibliography(IReadOnlyList<FormattedReference> References, bool InNotes);

/// <summary>The citation engine failed on a style; the message is for the log.</summary>
public sealed class FormattingException(string message, Exception inner) : Exception(message, inner);

/// <summary>
/// Formats references by CSL with citeproc in V8. A few engines are kept while people cite, each with the styles it has made; a call that
/// runs too long is broken off. Making a style costs up to half a second, formatting then about a millisecond a
/// reference.
/// </summary>
public sealed class ReferenceFormatter : IDisposable
{
    private const int MostStyles = 24;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(40);
    private readonly StyleShelf shelf;
    private readonly Lock gate = new();
    private Machine? machine;
    private readonly SemaphoreSlim turns;
    private readonly ThreadLocal<HtmlSanitizer> sanitizer = new(NewSanitizer);

    private sealed class Engine(Machine of, V8ScriptEngine script)
    {
        public Machine Of => of;
        public V8ScriptEngine Script => script;
        public int Styles { get; set; }
    }

    /// <summary>V8 with the scripts compiled, and its engines that nobody uses at the moment.</summary>
    private sealed class Machine : IDisposable
    {
        public V8Runtime Runtime { get; } = new("citing", new V8RuntimeConstraints { MaxOldSpaceSize = 512 });
        public V8Script Citeproc { get; }
        public V8Script Glue { get; }
        public Stack<Engine> Free { get; } = [];
        public int InUse { get; set; }

        public Machine()
        {
            Citeproc = Compile("citeproc.js");
            Glue = Compile("zendle-citeproc.js");
        }

        private V8Script Compile(string name) =>
            Runtime.Compile(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "csl", name)));

        public void Dispose()
        {
            foreach (var engine in Free)
                engine.Script.Dispose();
            Citeproc.Dispose();
            Glue.Dispose();
            Runtime.Dispose();
        }
    }

    /// <summary>Makes a formatter.</summary>
    /// <param name="shelf">Styles and locales.</param>
    /// <param name="atOnce">How many bibliographies are formatted at a time.</param>
    public ReferenceFormatter(StyleShelf shelf, int atOnce = 2)
    {
        this.shelf = shelf;
        turns = new(atOnce, atOnce);
    }

    /// <summary>Gives V8's memory back when nobody formats; who comes next waits until it has begun again.</summary>
    public void LetGo()
    {
        Machine? idle = null;
        lock (gate)
            if (machine is { InUse: 0 })
                (idle, machine) = (machine, null);
        idle?.Dispose();
    }

    private Engine Take()
    {
        lock (gate)
        {
            machine ??= new();
            var engine = machine.Free.TryPop(out var free) ? free : NewEngine(machine);
            machine.InUse++;
            return engine;
        }
    }

    private void Give(Engine engine, bool isSound)
    {
        lock (gate)
        {
            engine.Of.InUse--;
            if (isSound)
                engine.Of.Free.Push(engine);
        }
        if (!isSound)
            engine.Script.Dispose();
    }

    /// <summary>Formats items.</summary>
    /// <param name="style">The style.</param>
    /// <param name="locale">A shipped locale.</param>
    /// <param name="cslJson">An array of CSL-JSON items (CSL 1.0.2, csl-data), each with its id.</param>
    /// <param name="cancel">Ends the wait for a turn.</param>
    /// <exception cref="FormattingException">The engine failed or took too long.</exception>
    public async Task<FormattedBibliography> Format(
        CitationStyle style,
        string locale,
        string cslJson,
        CancellationToken cancel
    )
    {
        await turns.WaitAsync(cancel);
        Engine? engine = null;
        var isSound = false;
        try
        {
            engine = await Task.Run(Take, CancellationToken.None);
            var made = await Task.Run(() => Format(engine, style, locale, cslJson), CancellationToken.None);
            isSound = true;
            return made;
        }
        catch (Exception e) when (e is ScriptEngineException or ScriptInterruptedException or JsonException)
        {
            throw new FormattingException($"Style {style.Key} in {locale} failed: {e.Message}", e);
        }
        finally
        {
            if (engine is not null)
                Give(engine, isSound);
            turns.Release();
        }
    }

    private FormattedBibliography Format(Engine engine, CitationStyle style, string locale, string cslJson)
    {
        using var limit = new Timer(_ => engine.Script.Interrupt(), null, Longest, Timeout.InfiniteTimeSpan);
        var key = $"{style.Parent ?? style.Key} {locale}";
        dynamic zendle = engine.Script.Script.zendle;
        if (!(bool)zendle.has(key))
        {
            if (++engine.Styles > MostStyles)
            {
                zendle.forget();
                engine.Styles = 1;
            }
            zendle.make(key, shelf.StyleXml(style), locale);
        }
        var html = Read((string)zendle.bibliography(key, cslJson, "html"));
        var text = Read((string)zendle.bibliography(key, cslJson, "text"));
        return new(
            [.. html.Ids.Select((id, i) => new FormattedReference(id, Clean(html.Entries[i]), text.Entries[i].Trim()))],
            html.InNotes
        );
    }

    private sealed record Made(string[] Ids, string[] Entries, bool InNotes);

    private static Made Read(string json) => JsonSerializer.Deserialize<Made>(json, JsonSerializerOptions.Web)!;

    private Engine NewEngine(Machine of)
    {
        var script = of.Runtime.CreateScriptEngine();
        script.AddHostObject("hostLocale", new Func<string, string?>(shelf.LocaleXml));
        script.Execute("var module = { exports: {} }; var console = { log: function () {} };");
        script.Execute(of.Citeproc);
        script.Execute(of.Glue);
        return new(of, script);
    }

    /// <summary>
    /// Titles come from outside and may hold markup; of it only what prints stays. Small capitals are a class, for
    /// pages allow no inline styles.
    /// </summary>
    private string Clean(string html) =>
        sanitizer
            .Value!.Sanitize(
                html.Replace("style=\"font-variant:small-caps;\"", "class=\"small-caps\"", StringComparison.Ordinal)
                    .Replace("style=\"font-variant: small-caps;\"", "class=\"small-caps\"", StringComparison.Ordinal)
            )
            .Trim();

    private static HtmlSanitizer NewSanitizer()
    {
        var sanitizer = new HtmlSanitizer();
        sanitizer.AllowedTags.Clear();
        sanitizer.AllowedAttributes.Clear();
        sanitizer.AllowedSchemes.Clear();
        foreach (var tag in new[] { "i", "b", "em", "strong", "sup", "sub", "span", "div" })
            sanitizer.AllowedTags.Add(tag);
        sanitizer.AllowedAttributes.Add("class");
        foreach (
            var name in new[]
            {
                "csl-entry",
                "csl-left-margin",
                "csl-right-inline",
                "csl-block",
                "csl-indent",
                "small-caps",
            }
        )
            sanitizer.AllowedClasses.Add(name);
        return sanitizer;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        machine?.Dispose();
        turns.Dispose();
        sanitizer.Dispose();
    }
}
