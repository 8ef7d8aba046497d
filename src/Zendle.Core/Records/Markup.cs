using System.Collections.Frozen;
using System.Text;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>
/// Tells markup from text and turns it into plain text. Only elements that scholarly records really carry (HTML, JATS,
/// MathML), written as elements are, count as markup; everything else between angle brackets is what the author wrote
/// ("T&lt;Topt and depth&gt;3 m").
/// </summary>
internal static partial class Markup
{
    /// <summary>Elements inside a word: what stands on both sides belongs together.</summary>
    private static readonly FrozenSet<string> Inline = new[]
    {
        "i",
        "b",
        "u",
        "s",
        "em",
        "strong",
        "sub",
        "sup",
        "span",
        "small",
        "big",
        "font",
        "a",
        "tt",
        "code",
        "q",
        "cite",
        "abbr",
        "mark",
        "strike",
        "del",
        "ins",
        "italic",
        "bold",
        "sc",
        "roman",
        "monospace",
        "sans-serif",
        "underline",
        "overline",
        "named-content",
        "styled-content",
        "inf",
        "ext-link",
        "xref",
        "email",
        "uri",
        "inline-formula",
        "tex-math",
        "math",
        "mi",
        "mn",
        "mo",
        "mrow",
        "msub",
        "msup",
        "msubsup",
        "mtext",
        "mstyle",
        "mfenced",
        "mover",
        "munder",
        "mspace",
        "semantics",
        "annotation",
        "scp",
        "smallcaps",
        "inline-graphic",
    }.ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>Elements between words.</summary>
    private static readonly FrozenSet<string> Block = new[]
    {
        "p",
        "br",
        "div",
        "ul",
        "ol",
        "li",
        "dl",
        "dt",
        "dd",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "table",
        "tbody",
        "thead",
        "tr",
        "td",
        "th",
        "hr",
        "blockquote",
        "pre",
        "section",
        "article",
        "header",
        "img",
        "sec",
        "title",
        "abstract",
        "trans-abstract",
        "list",
        "list-item",
        "disp-formula",
        "label",
        "caption",
        "fig",
        "script",
        "style",
        "body",
        "html",
        "head",
        "meta",
        "link",
        "iframe",
        "object",
        "form",
        "input",
        "button",
        "center",
        "svg",
        "video",
        "audio",
        "mfrac",
        "mtable",
        "mtr",
        "mtd",
        "msqrt",
        "mroot",
        "break",
        "def",
        "def-list",
        "disp-quote",
        "lb",
        "para",
        "simple-para",
        "subtitle",
    }.ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    private const string Below = "₀₁₂₃₄₅₆₇₈₉₊₋₌₍₎",
        Above = "⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁼⁽⁾",
        Plain = "0123456789+-=()";

    /// <summary>Commands of TeX that stand for one sign.</summary>
    private static readonly FrozenDictionary<string, string> Commands = (
        "alpha α|beta β|gamma γ|delta δ|epsilon ε|varepsilon ε|zeta ζ|eta η|theta θ|kappa κ|lambda λ|mu μ|nu ν|"
        + "xi ξ|pi π|rho ρ|sigma σ|tau τ|phi φ|varphi φ"
        + "|chi χ|psi ψ|omega ω|Delta Δ|Gamma Γ|Sigma Σ|Omega Ω|Phi Φ|times ×|cdot ·|pm ±|leq ≤|le ≤|geq ≥|ge ≥|"
        + "neq ≠|approx ≈|sim ~|degree °|circ °|infty ∞"
        + "|rightarrow →|to →|sum Σ|partial ∂|ell ℓ|ldots …|percent %"
    )
        .Split('|')
        .Select(c => c.Split(' '))
        .ToFrozenDictionary(c => c[0], c => c[1], StringComparer.Ordinal);

    /// <summary>Whether an element of this name stands inside words and not between them.</summary>
    public static bool IsInsideWord(string name) => Inline.Contains(name);

    /// <summary>The text without markup.</summary>
    public static string ToText(string text)
    {
        if (text.Contains('<', StringComparison.Ordinal))
        {
            text = Comment().Replace(text, " ");
            text = Script()
                .Replace(
                    text,
                    m => Shifted(m.Groups["inside"].Value, m.Groups["name"].Value is "sup" or "SUP" or "msup")
                );
            text = Element().Replace(text, m => Kind(m) is { } between ? between : m.Value);
        }
        return text.Contains('$', StringComparison.Ordinal)
            ? TexMath().Replace(text, m => Looks(m.Groups[1].Value) ? Tex(m.Groups[1].Value) : m.Value)
            : text;
    }

    /// <summary>What stands in the place of a tag; null when it is none.</summary>
    private static string? Kind(Match tag)
    {
        var name = tag.Groups["name"].Value;
        var bare = name[(name.IndexOf(':', StringComparison.Ordinal) + 1)..];
        return Block.Contains(bare) ? " "
            : Inline.Contains(bare) ? ""
            : null;
    }

    /// <summary>Digits and signs as sub- or superscripts; what has no such form follows as it is.</summary>
    private static string Shifted(string text, bool isAbove) =>
        text.All(c => Plain.Contains(c, StringComparison.Ordinal) || c == '−') && text.Length > 0
            ? string.Concat(
                text.Select(c => (isAbove ? Above : Below)[Plain.IndexOf(c == '−' ? '-' : c, StringComparison.Ordinal)])
            )
            : text;

    /// <summary>Whether what stands between dollars is a formula, and not a price.</summary>
    private static bool Looks(string inside) => inside.IndexOfAny(['\\', '_', '^', '{']) >= 0;

    /// <summary>A formula of TeX as far as a line of text can hold it.</summary>
    private static string Tex(string formula)
    {
        var text = TexWrapper().Replace(formula, "$1");
        text = TexShift()
            .Replace(
                text,
                m => Shifted(m.Groups[2].Success ? m.Groups[2].Value : m.Groups[3].Value, m.Groups[1].Value == "^")
            );
        text = TexCommand().Replace(text, m => Commands.GetValueOrDefault(m.Groups[1].Value, m.Groups[1].Value));
        var plain = new StringBuilder(text.Length);
        foreach (var c in text)
            if (c is not ('{' or '}' or '\\'))
                plain.Append(c);
        return plain.ToString();
    }

    [GeneratedRegex(
        "<!--.{0,2000}?-->|<\\?.{0,200}?\\?>|<!\\[CDATA\\[|\\]\\]>",
        RegexOptions.Singleline | RegexOptions.CultureInvariant
    )]
    private static partial Regex Comment();

    // A name, then attributes as attributes are written, or nothing.
    [GeneratedRegex(
        @"</?(?<name>[A-Za-z][A-Za-z0-9]{0,20}(?:[:-][A-Za-z][A-Za-z0-9-]{0,20})?)(?:\s+[\w:.-]{1,40}\s*=\s*(?:""[^""<]{0,400}"""
            + @"|'[^'<]{0,400}'|[^\s""'<>=]{1,200})){0,12}\s*/?>",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Element();

    [GeneratedRegex(
        @"<(?:[a-z]{1,5}:)?(?<name>sub|sup|SUB|SUP)>\s*(?<inside>[^<>]{1,12}?)\s*</(?:[a-z]{1,5}:)?\k<name>>",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Script();

    [GeneratedRegex(@"\$\$?([^$]{1,200})\$\$?", RegexOptions.CultureInvariant)]
    private static partial Regex TexMath();

    [GeneratedRegex(
        @"\\(?:text|textrm|textit|textbf|mathrm|mathit|mathbf|mathsf|rm|it|operatorname)\s*\{([^{}]*)\}",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex TexWrapper();

    [GeneratedRegex(@"([_^])(?:\{([^{}]*)\}|(\\[A-Za-z]+|[^\s{}]))", RegexOptions.CultureInvariant)]
    private static partial Regex TexShift();

    [GeneratedRegex(@"\\([A-Za-z]+)\s?", RegexOptions.CultureInvariant)]
    private static partial Regex TexCommand();
}
