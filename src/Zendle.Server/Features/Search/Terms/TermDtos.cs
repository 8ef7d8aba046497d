using Zendle.Core.Terms;
using Zendle.Index.Terms;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>Which works offered terms are taken from.</summary>
internal enum TermSource
{
    /// <summary>The kept works.</summary>
    Kept,

    /// <summary>The kept works that the search does not find, each concept for those that it loses.</summary>
    Missed,

    /// <summary>Works that are named: ticked in the list, or the one in the pane.</summary>
    Listed,
}

/// <summary>Asks for terms.</summary>
/// <param name="Text">The line as it stands.</param>
/// <param name="StepId">The step whose databases and limits count.</param>
/// <param name="Source">Which works the terms are taken from.</param>
/// <param name="Works">Ids of the works, for <see cref="TermSource.Listed"/>.</param>
internal sealed record TermsRequest(string Text, int StepId, TermSource Source, IReadOnlyList<int> Works);

/// <summary>How a vocabulary ties a term to one of the board.</summary>
internal enum TermRelation
{
    /// <summary>Another name of the same idea.</summary>
    SameIdea,

    /// <summary>A part or kind of it.</summary>
    Narrower,

    /// <summary>What it is a part or kind of.</summary>
    Broader,
}

/// <summary>Why a vocabulary offers a term.</summary>
/// <param name="Relation">What it is to the idea.</param>
/// <param name="Of">The idea, by its label.</param>
/// <param name="Database">Whose vocabulary says so.</param>
internal sealed record TermTieDto(TermRelation Relation, string Of, string Database);

/// <summary>A term that is offered.</summary>
/// <param name="Text">The term.</param>
/// <param name="Expression">What taking it adds to the card: the term with its other number and spellings.</param>
/// <param name="Good">Good works that have it.</param>
/// <param name="All">Works that have it in the chosen databases.</param>
/// <param name="Card">The card it is for; one behind the last for a concept of its own.</param>
/// <param name="Adds">Works it would add to the set in view.</param>
/// <param name="Alike">Those among them that look like the good ones.</param>
/// <param name="From">Year from which on it is used: a twentieth of its works is older; 0 for no year.</param>
/// <param name="To">Year up to which it is used.</param>
/// <param name="IsPromising">Whether a good part of what it adds looks like the good works.</param>
/// <param name="Age">Whether it is an older or a newer word than those of its card.</param>
/// <param name="StandsFor">Of an abbreviation: the term of the board it is short for.</param>
/// <param name="ShortFor">Of a long form: the abbreviation on the board that it spells out.</param>
/// <param name="Tie">Why a vocabulary offers it; null when none does.</param>
internal sealed record OfferedTermDto(
    string Text,
    string Expression,
    int Good,
    int All,
    int Card,
    int Adds,
    int Alike,
    int From,
    int To,
    bool IsPromising,
    WordAge Age,
    string? StandsFor,
    string? ShortFor,
    TermTieDto? Tie
)
{
    public static OfferedTermDto Of(
        TermOffer o,
        string? standsFor = null,
        string? shortFor = null,
        TermTieDto? tie = null
    ) =>
        new(
            o.Text,
            o.Expression,
            o.Good,
            o.All,
            o.Card,
            o.Adds,
            o.Alike,
            o.From,
            o.To,
            o.IsPromising,
            o.Age,
            standsFor,
            shortFor,
            tie
        );
}

/// <summary>A word that the search has already.</summary>
/// <param name="Text">The word as it is written in the search.</param>
/// <param name="Works">Works that have it in the chosen databases.</param>
/// <param name="From">Year from which on it is used: a twentieth of its works is older; 0 for no year.</param>
/// <param name="To">Year up to which it is used.</param>
internal sealed record WordInUseDto(string Text, int Works, int From, int To);

/// <summary>The words that a concept of the search has already.</summary>
/// <param name="Card">The concept's card.</param>
/// <param name="Words">Its words, the one used first foremost.</param>
internal sealed record ConceptWordsDto(int Card, IReadOnlyList<WordInUseDto> Words);

/// <summary>Offered terms.</summary>
/// <param name="Good">How many works they were taken from.</param>
/// <param name="Terms">The terms, the most promising first.</param>
/// <param name="Abbreviated">Abbreviations of the board's terms, and long forms of its abbreviations, as works explain them.</param>
/// <param name="OfVocabularies">What the vocabularies of databases know of the board's terms.</param>
/// <param name="InUse">What the concepts have already, beside which an offered term is an older or a newer word.</param>
/// <param name="Refused">Terms that this review does not want offered.</param>
internal sealed record OfferedTermsDto(
    int Good,
    IReadOnlyList<OfferedTermDto> Terms,
    IReadOnlyList<OfferedTermDto> Abbreviated,
    IReadOnlyList<OfferedTermDto> OfVocabularies,
    IReadOnlyList<ConceptWordsDto> InUse,
    IReadOnlyList<RefusedTermDto> Refused
);

/// <summary>A term that is offered for what must not stand.</summary>
/// <param name="Text">The term.</param>
/// <param name="Expression">What taking it adds to "without".</param>
/// <param name="Aside">Works set aside that have it, among those in view.</param>
/// <param name="InView">Works in view that have it.</param>
/// <param name="Removes">Works in view that it removes.</param>
/// <param name="KeptHit">Kept works among those.</param>
internal sealed record TermAgainstDto(string Text, string Expression, int Aside, int InView, int Removes, int KeptHit);

/// <summary>Terms offered for what must not stand.</summary>
/// <param name="Aside">Works in view that were set aside.</param>
/// <param name="Terms">The terms; those that hit no kept work first.</param>
/// <param name="Refused">Terms that this review does not want offered.</param>
internal sealed record TermsAgainstDto(
    int Aside,
    IReadOnlyList<TermAgainstDto> Terms,
    IReadOnlyList<RefusedTermDto> Refused
);

/// <summary>Asks what a term alone would bring, or remove, before it is taken.</summary>
/// <param name="Text">The line as it stands.</param>
/// <param name="StepId">The step whose databases and limits count.</param>
/// <param name="Expression">The term, or several joined by OR.</param>
/// <param name="Card">The card it would go to; −1 for "without", one behind the last for a concept of its own.</param>
internal sealed record TrialRequest(string Text, int StepId, string Expression, int Card);

/// <summary>What a term would bring or remove.</summary>
/// <param name="Line">The line with it.</param>
/// <param name="Adds">Works that come into view.</param>
/// <param name="Removes">Works that leave it.</param>
/// <param name="Works">Works that come, or where none does those that leave: the most cited first, some of them.</param>
internal sealed record TrialDto(string Line, int Adds, int Removes, IReadOnlyList<WorkRowDto> Works);

/// <summary>A term that a review does not want offered.</summary>
/// <param name="Text">The term.</param>
/// <param name="By">Who refused it.</param>
/// <param name="At">When.</param>
internal sealed record RefusedTermDto(string Text, string By, DateTimeOffset At);

/// <summary>Refuses a term, or lets it be offered again.</summary>
/// <param name="Text">The term.</param>
/// <param name="IsRefused">Whether it is refused.</param>
internal sealed record RefuseRequest(string Text, bool IsRefused);
