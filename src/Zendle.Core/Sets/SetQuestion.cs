namespace Zendle.Core.Sets;

/// <summary>
/// What a set of works is before anything narrows it. The kinds are closed: each is one type in Core, and what answers
/// it one case of the evaluation (<c>docs/architecture.md</c>).
/// </summary>
public abstract record SetQuestion
{
    private protected SetQuestion() { }

    /// <summary>Ids of the works it names one by one; none for most kinds.</summary>
    public virtual IEnumerable<int> Works() => [];

    /// <summary>The same question about the works that its numbers stand for today.</summary>
    /// <param name="today">The number of today for a number.</param>
    public virtual SetQuestion Today(Func<int, int> today) => this;
}

/// <summary>The works with a record that matches an expression.</summary>
/// <param name="Expression">The expression; empty for every work.</param>
public sealed record WordsQuestion(string Expression) : SetQuestion;
