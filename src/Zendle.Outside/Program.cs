Zendle.Outside.OutsideApplication.Build(args).Run();
