var app = WebApplication.CreateBuilder(args).Build(); app.Run();
