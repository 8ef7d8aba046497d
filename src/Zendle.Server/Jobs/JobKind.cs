using Zendle.Core.Schedules;
using Zendle.Store.Made;

namespace Zendle.Server.Jobs;

/// <summary>Whose jobs of a kind are, and so whom their progress reaches.</summary>
internal enum JobOwner
{
    /// <summary>The installation's: everyone who is signed in.</summary>
    Installation,

    /// <summary>A review's: its members. The job's subject is the review's id.</summary>
    Review,
}

/// <summary>
/// A kind of long work, registered beside the feature it belongs to. Jobs of one kind run one after another, in a lane
/// of their own.
/// </summary>
/// <param name="Name">What it is called in the store and in the API; never changed.</param>
/// <param name="Owner">Whose its jobs are.</param>
internal sealed record JobKind(string Name, JobOwner Owner)
{
    /// <summary>How often it is asked for by itself, without anybody's wish; null for never.</summary>
    public Recurrence? ByItself { get; init; }

    /// <summary>The review a job of this kind belongs to; null for the installation's.</summary>
    public int? ReviewOf(JobRow job) => Owner == JobOwner.Review ? job.Subject : null;
}

internal static class JobKinds
{
    /// <summary>Makes a kind of job known, and what does its work.</summary>
    public static IServiceCollection AddJob<TJob>(this IServiceCollection services, JobKind kind)
        where TJob : class, IJob => services.AddSingleton(kind).AddKeyedSingleton<IJob, TJob>(kind.Name);
}
