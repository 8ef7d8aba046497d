using System.Text.Json.Serialization;

namespace Zendle.Core.Reviews.Acts;

/// <summary>
/// One act of searching or narrowing, as a person takes it and a step keeps it. The kinds are closed: each is one type
/// that knows what it leads to, what is wrong with it, what it is called and which works it names. How acts are written
/// down, and how those of earlier versions are read, is told by <see cref="StoredActs"/>. A step is undone by taking it
/// out of its path, whatever its act is.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SearchAct), "Search")]
[JsonDerivedType(typeof(AddAct), "Add")]
[JsonDerivedType(typeof(DatabasesAct), "Databases")]
[JsonDerivedType(typeof(YearsAct), "Years")]
[JsonDerivedType(typeof(NarrowAct), "Narrow")]
[JsonDerivedType(typeof(InsideAct), "Inside")]
[JsonDerivedType(typeof(TrailAct), "Trail")]
[JsonDerivedType(typeof(WayAct), "Way")]
[JsonDerivedType(typeof(TiesAct), "Ties")]
[JsonDerivedType(typeof(WhereItCitesAct), "WhereItCites")]
[JsonDerivedType(typeof(NeighboursAct), "Neighbours")]
[JsonDerivedType(typeof(RoundAct), "Round")]
[JsonDerivedType(typeof(KindsAct), "Kinds")]
[JsonDerivedType(typeof(SharedAct), "Shared")]
[JsonDerivedType(typeof(CitersAct), "Citers")]
[JsonDerivedType(typeof(SelfAct), "Self")]
[JsonDerivedType(typeof(CompareAct), "Compare")]
[JsonDerivedType(typeof(AmongAct), "Among")]
public abstract record StepAct
{
    private protected StepAct() { }

    /// <summary>The state it leads to.</summary>
    /// <param name="before">The state it is taken in.</param>
    public abstract SearchState After(SearchState before);

    /// <summary>What it is called: what it changed, in a few words.</summary>
    /// <param name="names">Names of what it speaks of.</param>
    public abstract string Label(ActNames names);

    /// <summary>Why it cannot be taken; null when it can.</summary>
    public virtual ActFault? Fault() => null;

    /// <summary>Whether it puts a question in place of the one before, of which nothing is left.</summary>
    public virtual bool BeginsAnew() => false;

    /// <summary>
    /// Whether it says something in a state; what narrows a trail does not where there is none.
    /// </summary>
    /// <param name="before">The state it is taken in.</param>
    public virtual bool SaysSomethingIn(SearchState before) => true;

    /// <summary>Whether a step can be changed from this act into another one.</summary>
    public virtual bool CanBecome(StepAct other) => other.GetType() == GetType();

    /// <summary>Ids of the works that it names one by one; none for most kinds.</summary>
    public virtual IEnumerable<int> NamedWorks() => [];

    /// <summary>The same act about the works that its numbers stand for today.</summary>
    /// <param name="today">The number of today for a number.</param>
    public virtual StepAct Today(Func<int, int> today) => this;
}
