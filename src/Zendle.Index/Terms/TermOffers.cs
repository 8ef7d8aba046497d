using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Questions;

namespace Zendle.Index.Terms;

/// <summary>A term that is offered for a concept of a search.</summary>
/// <param name="Text">The term as most works have it.</param>
/// <param name="Expression">What is added to the card: the term and its variants, joined by OR.</param>
/// <param name="Good">Good works that have it.</param>
/// <param name="All">Works that have it in the chosen databases.</param>
/// <param name="Card">The card it is offered for; one behind the last for a concept of its own.</param>
/// <param name="Adds">Works it would add to the set in view.</param>
/// <param name="Alike">Those among them that look like the good ones.</param>
/// <param name="From">Year from which on works have it: a twentieth of them is older; 0 for no year.</param>
/// <param name="To">Year up to which they have it: a twentieth is newer.</param>
/// <param name="IsPromising">Whether enough of what it adds looks like the good works.</param>
/// <param name="Age">Whether it is an older or a newer word than those of its card.</param>
public sealed record TermOffer(
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
    WordAge Age
);

/// <summary>A word of the search as it stands, and when works use it.</summary>
/// <param name="Text">The word as it is written in the search.</param>
/// <param name="Works">Works that have it in the chosen databases.</param>
/// <param name="From">Year from which on works have it: a twentieth of them is older; 0 for no year.</param>
/// <param name="To">Year up to which they have it: a twentieth is newer.</param>
public sealed record WordInUse(string Text, int Works, int From, int To);

/// <summary>What offers are made for.</summary>
/// <param name="Board">The search as it stands.</param>
/// <param name="Databases">Chosen databases; empty for all.</param>
/// <param name="Limits">Works that the narrowings leave; null for all.</param>
/// <param name="InView">Works that the search finds under all limits.</param>
/// <param name="Good">The good works.</param>
/// <param name="Refused">Terms that are not wanted, folded.</param>
public sealed record OfferGround(
    SearchBoard Board,
    ImmutableArray<int> Databases,
    WorkSet? Limits,
    WorkSet InView,
    WorkSet Good,
    IReadOnlySet<string> Refused
);

/// <summary>
/// Offers terms that mark the good works against the rest of the corpus, each for the concept whose company it keeps,
/// with what taking it would bring. Which terms are looked at is decided by counts over the running words; what is told
/// of them is counted by asking.
/// </summary>
public sealed class TermOffers
{
    /// <summary>So many terms are looked at.</summary>
    private const int Looked = 60;

    /// <summary>An offer is promising when so much of what it adds looks like the good works.</summary>
    private const double PromisingShare = 0.25;

    /// <summary>How much what a term brings weighs beside the company it keeps.</summary>
    private const double PromiseWeight = 0.4;

    /// <summary>What more than a tenth of the other works have is no word for one thing.</summary>
    private const double MostShare = 0.1;

    /// <summary>By so many terms works are told to look like the good ones.</summary>
    private const int Marks = 30;

    /// <summary>The company of terms is looked at in so many works.</summary>
    private const int CompanyWorks = 2_000;

    private readonly CorpusSnapshot snapshot;
    private readonly QuestionEvaluator evaluator;
    private readonly OfferGround ground;
    private readonly int[] open;
    private readonly Dictionary<int, RecordSet?> rest = [];
    private readonly Lazy<IReadOnlyList<CountedTerm>> counted;
    private readonly Lazy<LikeGood> like;
    private readonly Dictionary<int, Lazy<YearsOfUse>> cardYears;

    /// <summary>Prepares offers.</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="evaluator">Answers what terms find.</param>
    /// <param name="ground">What they are made for.</param>
    public TermOffers(CorpusSnapshot snapshot, QuestionEvaluator evaluator, OfferGround ground)
    {
        (this.snapshot, this.evaluator, this.ground) = (snapshot, evaluator, ground);
        // A term can be added to alternatives; near words must all stand.
        open =
        [
            .. Enumerable
                .Range(0, ground.Board.Cards.Length)
                .Where(c => ground.Board.Cards[c] is { Kind: CardKind.Concept, Near: null }),
        ];
        cardYears = open.ToDictionary(
            c => c,
            c => new Lazy<YearsOfUse>(() => Years(Works(ground.Board.Cards[c].Expression)))
        );
        counted = new(() =>
            new TermCandidates(snapshot.Columns.Words, ground.Good).Against(
                evaluator.Everything(),
                ground.Good,
                Budget.Current,
                snapshot.Read
            )
        );
        like = new(() =>
            new LikeGood(
                MarkingTerms.Choose(counted.Value, [], ImmutableHashSet<string>.Empty, Marks),
                t => Works(t.Expression),
                ground.Good,
                snapshot.Columns.Works,
                snapshot.Columns.Graph
            )
        );
    }

    /// <summary>The cards that terms can be offered for.</summary>
    public IReadOnlyList<int> Open => open;

    /// <summary>Works of the chosen databases that an expression finds.</summary>
    public WorkSet Works(string expression) => evaluator.Works(expression, ground.Databases);

    /// <summary>The works among some that may explain a term in brackets; see <see cref="BracketedTerms"/>.</summary>
    public IEnumerable<int> Bracketed(IReadOnlyList<int> works, TermNode term)
    {
        var column = new BracketedTerms(snapshot.Columns.Words);
        return term.Forms.SelectMany(form => column.Among(works, form)).Distinct();
    }

    /// <summary>What there is to say of one term for one card.</summary>
    /// <param name="text">The term.</param>
    /// <param name="expression">What is added to the card.</param>
    /// <param name="card">The card.</param>
    public TermOffer One(string text, string expression, int card)
    {
        var added = Added(expression, card);
        return Told(
            text,
            expression,
            Works(expression),
            (card, added.Count(), ground.Good.IsEmpty ? 0 : like.Value.Count(added))
        );
    }

    /// <summary>
    /// The words of a card as it stands, the one used first foremost, those that no work with a year has last. O(works of
    /// each).
    /// </summary>
    /// <param name="card">The card, one of <see cref="Open"/>.</param>
    public IReadOnlyList<WordInUse> InUse(int card)
    {
        var concept = ground.Board.Cards[card];
        return
        [
            .. concept
                .Terms.Select(term =>
                {
                    var works = Works((concept with { Terms = [term] }).Expression);
                    var years = Years(works);
                    return new WordInUse(term, works.Count(), years.From, years.To);
                })
                .OrderBy(w => w.From == 0)
                .ThenBy(w => w.From)
                .ThenBy(w => w.To),
        ];
    }

    /// <summary>The offers, the most promising first; none without good works.</summary>
    /// <param name="only">A card that all are for; null for whichever fits.</param>
    public IReadOnlyList<TermOffer> All(int? only = null)
    {
        var column = snapshot.Columns.Words;
        if (ground.Good.IsEmpty)
            return [];
        var others = snapshot.Columns.Works - ground.Good.Count();
        var chosen = MarkingTerms.Choose(
            counted.Value.Where(t => t.Others <= MostShare * others),
            [.. ground.Board.Cards.SelectMany(c => c.TextTerms)],
            ground.Refused,
            Looked
        );
        // What terms find is read several at once; no term knows of another.
        var works = new WorkSet[chosen.Count];
        snapshot.Read([.. Enumerable.Range(0, works.Length)], i => works[i] = Works(chosen[i].Expression));
        foreach (var card in open)
            Others(card);
        _ = like.Value; // made once, not by whichever offer comes first
        var company = new TermCompany(
            column,
            Sample(),
            [.. open.Select(c => ground.Board.Cards[c].TextTerms.ToArray())],
            [.. chosen.Select(c => c.Term.Words)]
        );
        var offers = new TermOffer[chosen.Count];
        snapshot.Read([.. Enumerable.Range(0, offers.Length)], i => offers[i] = Offer(i));
        return
        [
            .. offers
                .OrderByDescending(o => o.IsPromising)
                .ThenByDescending(o => Promise(o.Adds, o.Alike) * Telling(o, others)),
        ];

        TermOffer Offer(int i) =>
            Told(
                chosen[i].Term.Text,
                chosen[i].Expression,
                works[i],
                Card(chosen[i], only, company.Likeness(i, chosen[i].Term.Words), like.Value)
            );
    }

    private TermOffer Told(string text, string expression, WorkSet works, (int Card, int Adds, int Alike) brought)
    {
        var years = Years(works);
        return new(
            text,
            expression,
            works.CountWith(ground.Good),
            works.Count(),
            brought.Card,
            brought.Adds,
            brought.Alike,
            years.From,
            years.To,
            brought.Alike > 0 && brought.Alike >= PromisingShare * brought.Adds,
            cardYears.TryGetValue(brought.Card, out var others) ? years.Beside(others.Value) : WordAge.Same
        );
    }

    /// <summary>The works that adding terms to a card would bring into view: exactly those.</summary>
    /// <param name="expression">Terms joined by OR.</param>
    /// <param name="card">The card; one behind the last for a concept of its own, which brings works only to an empty
    /// board.</param>
    public WorkSet Added(string expression, int card)
    {
        var scope = card < ground.Board.Cards.Length ? ground.Board.Cards[card].Scope : QueryField.About;
        if (card == ground.Board.Cards.Length && card > 0 || QueryReader.Read(expression).Root is not { } root)
            return evaluator.Nothing();
        var records = evaluator.Records(root, scope);
        var works = evaluator.Works(
            Others(card) is { } others ? others.CommonWith([records]) : records,
            ground.Databases
        );
        if (ground.Limits is { } limits)
            works.IntersectWith(limits);
        works.ExceptWith(ground.InView);
        return works;
    }

    /// <summary>How promising an offer is: what it brings that looks right, less a little for what does not.</summary>
    private static double Promise(int adds, int alike) => adds == 0 ? -1 : alike * (double)alike / adds;

    /// <summary>How much oftener a term stands in good works than in others, as a logarithm; at least a little.</summary>
    private double Telling(TermOffer offer, int others) =>
        Math.Max(
            0.1,
            Math.Log((double)offer.Good / ground.Good.Count() / ((offer.All - offer.Good + 0.5) / Math.Max(1, others)))
        );

    /// <summary>
    /// The card a term goes to: the one whose company it keeps, unless it brings more that looks right to another.
    /// </summary>
    private (int Card, int Adds, int Alike) Card(MarkingTerm term, int? only, double[] likeness, LikeGood like)
    {
        int[] cards =
            only is { } one ? [one]
            : open.Length == 0 ? [ground.Board.Cards.Length]
            : open;
        var brought = Array.ConvertAll(
            cards,
            card =>
                Added(term.Expression, card) is var added
                    ? (card, Adds: added.Count(), Alike: like.Count(added))
                    : default
        );
        if (cards.Length == 1)
            return brought[0];
        var nearest = Math.Max(1e-9, likeness.Max());
        var most = Math.Max(1e-9, brought.Max(b => Promise(b.Adds, b.Alike)));
        return brought
            .Zip(
                likeness,
                (b, l) => (Card: b, Score: (l / nearest) + (PromiseWeight * Promise(b.Adds, b.Alike) / most))
            )
            .MaxBy(b => b.Score)
            .Card;
    }

    /// <summary>The records that satisfy everything but one card; null when there is nothing else.</summary>
    private RecordSet? Others(int card)
    {
        if (rest.TryGetValue(card, out var known))
            return known;
        var others = card < ground.Board.Cards.Length ? ground.Board.Cards.RemoveAt(card) : ground.Board.Cards;
        return rest[card] = QueryReader.Read(new SearchBoard(others).Expression).Root is { } root and not AllNode
            ? evaluator.Records(root)
            : null;
    }

    /// <summary>Works in which the company of terms is looked at: the good ones, and others evenly over the corpus.</summary>
    private IEnumerable<int> Sample()
    {
        var size = snapshot.Columns.WorkSize;
        var step = Math.Max(1, size / CompanyWorks);
        return ground
            .Good.Members()
            .Take(CompanyWorks)
            .Concat(Enumerable.Range(0, size / step).Select(n => n * step).Where(w => !ground.Good.Contains(w)));
    }

    private YearsOfUse Years(WorkSet works) =>
        new(works.Members().Select(w => (int)snapshot.Columns.Year[w]).Where(year => year > 0));
}
