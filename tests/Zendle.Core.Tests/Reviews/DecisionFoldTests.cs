using CsCheck;
using Zendle.Core.Reviews;

namespace Zendle.Core.Tests.Reviews;

public sealed class DecisionFoldTests
{
    private long sequence;

    private DecisionEvent Event(
        DecisionAct act,
        int work,
        string? value = null,
        string by = "ann",
        Guid? batch = null
    ) =>
        new(
            ++sequence,
            batch ?? Guid.NewGuid(),
            work,
            work,
            act,
            value,
            by,
            DateTimeOffset.UnixEpoch.AddMinutes(sequence)
        );

    private DecisionEvent Undo(Guid batch, string by = "ann") =>
        new(++sequence, Guid.NewGuid(), 0, 0, DecisionAct.Keep, null, by, DateTimeOffset.UnixEpoch, batch);

    private static DecisionFold Fold(params DecisionEvent[] events) => new(events, e => e.WorkId);

    [Fact]
    public void The_last_judgement_stands_and_tags_gather()
    {
        var fold = Fold(
            Event(DecisionAct.Keep, 1),
            Event(DecisionAct.Tag, 1, "crops"),
            Event(DecisionAct.SetAside, 1, "no data"),
            Event(DecisionAct.Tag, 1, "anchor"),
            Event(DecisionAct.Untag, 1, "crops")
        );
        Assert.Equal((Stage.SetAside, "no data"), (fold.Of(1).Stage, fold.Of(1).Reason));
        Assert.Equal(["anchor"], fold.Of(1).Tags);
        Assert.Equal(Stage.Found, fold.Of(2).Stage);
    }

    [Fact]
    public void Undo_takes_a_whole_batch_back_and_leaves_what_was_before()
    {
        var before = Event(DecisionAct.SetAside, 1, "x");
        var batch = Guid.NewGuid();
        var fold = Fold(before, Event(DecisionAct.Keep, 1, batch: batch), Event(DecisionAct.Keep, 2, batch: batch));
        Assert.Equal(batch, fold.LastBatchOf("ann"));
        fold = fold.With([Undo(batch)]);
        Assert.Equal((Stage.SetAside, Stage.Found), (fold.Of(1).Stage, fold.Of(2).Stage));
        Assert.Equal(before.Batch, fold.LastBatchOf("ann"));
        Assert.Equal("This decision has been undone already.", fold.WhyNotUndo(batch, "ann"));
    }

    [Fact]
    public void Undo_is_personal()
    {
        var e = Event(DecisionAct.Keep, 1, by: "ben");
        var fold = Fold(e);
        Assert.Null(fold.LastBatchOf("ann"));
        Assert.Contains("Another member did this", fold.WhyNotUndo(e.Batch, "ann"), StringComparison.Ordinal);
        Assert.Null(fold.WhyNotUndo(e.Batch, "ben"));
    }

    [Fact]
    public void Undo_is_refused_when_a_later_act_stands_on_it()
    {
        var mine = Event(DecisionAct.Keep, 1);
        var tag = Event(DecisionAct.Tag, 1, "crops");
        var theirs = Event(DecisionAct.SetAside, 1, "x", by: "ben");
        var fold = Fold(mine, tag, theirs);
        Assert.Contains(
            "Another member has decided on the same work since",
            fold.WhyNotUndo(mine.Batch, "ann"),
            StringComparison.Ordinal
        );
        Assert.Null(fold.WhyNotUndo(tag.Batch, "ann")); // a tag does not hang on a judgement
        fold = fold.With([Undo(theirs.Batch, "ben")]);
        Assert.Null(fold.WhyNotUndo(mine.Batch, "ann"));
    }

    [Fact]
    public void A_decision_follows_its_record_to_the_work_it_belongs_to_today()
    {
        var fold = new DecisionFold([Event(DecisionAct.Keep, 1), Event(DecisionAct.SetAside, 2, "twice")], _ => 7);
        Assert.Equal(Stage.SetAside, fold.Of(7).Stage);
        Assert.Equal(Stage.Found, fold.Of(1).Stage);
    }

    [Fact]
    public void Folding_one_by_one_gives_what_folding_at_once_gives() =>
        Gen.Select(
                Gen.OneOf(
                    DecisionAct.Keep,
                    DecisionAct.SetAside,
                    DecisionAct.Clear,
                    DecisionAct.Tag,
                    DecisionAct.Untag
                ),
                Gen.Int[1, 3],
                Gen.Int[0, 4]
            )
            .Array[0, 25]
            .Sample(
                acts =>
                {
                    sequence = 0;
                    var events = new List<DecisionEvent>();
                    foreach (var (act, work, undo) in acts)
                        events.Add(
                            undo == 0 && events.Count > 0
                                ? Undo(events[^1].Undoes ?? events[^1].Batch)
                                : Event(act, work, act is DecisionAct.Tag or DecisionAct.Untag ? "t" : "r")
                        );
                    var atOnce = Fold([.. events]);
                    var oneByOne = Fold();
                    foreach (var e in events)
                        oneByOne = oneByOne.With([e]);
                    foreach (var work in new[] { 1, 2, 3 })
                        Assert.Equal(
                            (atOnce.Of(work).Stage, atOnce.Of(work).Reason, string.Join(',', atOnce.Of(work).Tags)),
                            (
                                oneByOne.Of(work).Stage,
                                oneByOne.Of(work).Reason,
                                string.Join(',', oneByOne.Of(work).Tags)
                            )
                        );
                },
                iter: 3_000
            );
}
