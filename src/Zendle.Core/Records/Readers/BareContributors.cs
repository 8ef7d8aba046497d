using System.Text.RegularExpressions;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Who the contributors of a bare record are: editors, those who paid, and others (advisors, translators, a
/// university), who are no authors. The role stands in brackets, before a colon, or behind the name: "Berg, Mei
/// (editor)", "Advisor: Lind, Per", "Moe, Ola, ed."
/// </summary>
/// <param name="Editors">Editors, in order.</param>
/// <param name="Funders">Those who paid.</param>
/// <param name="Others">The others as they stand, with what they did where it is said.</param>
internal sealed partial record BareContributors(
    IReadOnlyList<PersonName> Editors,
    IReadOnlyList<string> Funders,
    IReadOnlyList<string> Others
)
{
    /// <summary>Sorts contributors.</summary>
    public static BareContributors Of(IReadOnlyList<string> values)
    {
        var (editors, funders, others) = (new List<PersonName>(), new List<string>(), new List<string>());
        foreach (var value in values)
        {
            if (Funder().Match(value) is { Success: true } funder)
                funders.Add(Without(value, funder));
            else if (Editor().Match(value) is { Success: true } editor)
                editors.AddRange(
                    NameLists
                        .Split(Without(value, editor))
                        .Where(n => n.Family.Length > 0)
                        .Select(n => new PersonName(n.Family, n.Given, Role: "editor"))
                );
            else
                others.Add(value);
        }
        return new(editors, funders, others);
    }

    /// <summary>Whether a creator says of itself that it is an editor.</summary>
    public static bool IsEditor(string creator, out string name)
    {
        var match = Editor().Match(creator);
        name = match.Success ? Without(creator, match) : creator;
        return match.Success;
    }

    private static string Without(string value, Match match) =>
        (value[..match.Index] + value[(match.Index + match.Length)..]).Trim(' ', ',', ';', ':');

    [GeneratedRegex(
        @"\s*[(\[]\s*(?:eds?\.?|edits?|edt|editors?|hrsg\.?|herausgeber(?:in)?|hg\.?|[ée]d\.|dir\."
            + @"|[ée]diteurs?(?: scientifiques?)?|editor(?:a|es)?|org\.?|organizador(?:a|es)?|coord\.?|red\."
            + @"|sous la direction de)\s*[)\]]|^(?:editors?|eds?\.|edited by|herausgegeben von|hrsg\. von"
            + @"|herausgeber(?:in)?|[ée]diteurs?(?: scientifiques?)?|editado por|organizador(?:a|es)?)\s*:?\s+"
            + @"|,\s*(?:eds?\.?|editors?|hrsg\.?|hg\.)$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Editor();

    [GeneratedRegex(
        @"\s*[(\[]\s*(?:funder|funding(?: body| agency)?|sponsor|fnd|f[öo]rderer|financeur"
            + @"|financiador)\s*[)\]]|^(?:funder|funding(?: body| agency)?|sponsor(?:ed by)?|funded by"
            + @"|finanziert durch|financ[ée]e? par|financiado por)\s*:\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Funder();
}
