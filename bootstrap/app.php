<?php

declare(strict_types=1);

use App\Http\Middleware\AnswersInTime;
use App\Http\Middleware\NumberedRequest;
use App\Http\Middleware\SecurityHeaders;
use App\Http\Middleware\SpeaksTheirLanguage;
use App\Http\Middleware\Tagged;
use App\Http\Middleware\WellFormed;
use App\Http\Problems;
use App\Providers\LedgerServiceProvider;
use Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Middleware\HandleCors;

return Application::configure(basePath: dirname(__DIR__))
    ->withProviders([LedgerServiceProvider::class], false)
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        commands: __DIR__.'/../routes/console.php',
    )
    ->withCommands([__DIR__.'/../app/Console'])
    ->withMiddleware(function (Middleware $middleware): void {
        // The front end comes from the same origin; packages/registry-gaps says why the class behind this is missing.
        $middleware->remove(HandleCors::class);
        $middleware->prepend(NumberedRequest::class);
        $middleware->append(SecurityHeaders::class);
        $middleware->statefulApi();
        $middleware->append(AnswersInTime::class);
        $middleware->prependToGroup('api', WellFormed::class);
        $middleware->prependToGroup('api', Tagged::class);
        $middleware->appendToGroup('api', SpeaksTheirLanguage::class);
        $middleware->appendToGroup('web', SpeaksTheirLanguage::class);
        // Who has to sign in first is told so in their language.
        $middleware->prependToPriorityList(AuthenticatesRequests::class, SpeaksTheirLanguage::class);
        $middleware->redirectGuestsTo('/sign-in');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        Problems::register($exceptions);
    })
    ->create();
