<?php

declare(strict_types=1);

use App\Http\Inbound\MailRoomController;
use App\Http\Inbound\WebhookIngestController;
use App\Http\Middleware\TokenMay;
use App\Http\Middleware\WhileMailRoomIsOn;
use App\Http\Outbound\UnsubscribeController;
use App\Http\Page;
use App\Http\Slips\AnswerSlipController;
use App\Http\Tasks\FeedController;
use App\Work\Operations\Health;
use App\Work\Operations\Metrics;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Route;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

// The front end asks for this once, for the cookie that guards against requests forged elsewhere.
Route::get('/session/cookie', static fn (): JsonResponse => new JsonResponse(null, 204));

// The mail room's counter for text messages; a real gateway would be somewhere else.
Route::post('/stand-in/sms', [MailRoomController::class, 'takeText'])->withoutMiddleware('web')->middleware(WhileMailRoomIsOn::class);

// Where a mail server hands over answers to our letters.
Route::post('/stand-in/mail', [MailRoomController::class, 'takeMail'])->withoutMiddleware('web')->middleware(WhileMailRoomIsOn::class);
Route::post('/mail/{sign}', [MailRoomController::class, 'takeMail'])->where('sign', '[a-f0-9]{40}')->withoutMiddleware('web');

// Where other systems post.
Route::post('/hook/{key}', WebhookIngestController::class)->where('key', '[a-f0-9]{32}')->middleware('throttle:hook')
    ->withoutMiddleware('web');

// Who wants no more chases: a mail program says so with a press (RFC 8058), a person on a page.
Route::middleware('throttle:slip')->withoutMiddleware('web')->group(function (): void {
    Route::get('/unsubscribe/{token}', [UnsubscribeController::class, 'show'])->where('token', '[A-Za-z0-9_.-]{10,400}');
    Route::post('/unsubscribe/{token}', [UnsubscribeController::class, 'store'])->where('token', '[A-Za-z0-9_.-]{10,400}');
});

// A reply slip: outside by the link of a letter, inside for whoever is signed in and asked.
Route::middleware('throttle:slip')->withoutMiddleware('web')->group(function (): void {
    Route::get('/slip/{token}', [AnswerSlipController::class, 'show'])->where('token', '[A-Za-z0-9_-]{20,60}');
    Route::post('/slip/{token}', [AnswerSlipController::class, 'answer'])->where('token', '[A-Za-z0-9_-]{20,60}');
    Route::post('/slip/{token}/draft', [AnswerSlipController::class, 'draft'])->where('token', '[A-Za-z0-9_-]{20,60}');
});
Route::middleware(['auth:sanctum', TokenMay::class])->group(function (): void {
    Route::get('/slip/mine/{id}', [AnswerSlipController::class, 'showMine']);
    Route::post('/slip/mine/{id}', [AnswerSlipController::class, 'answerMine']);
});

// A person's tasks as a calendar; whoever has the secret may read it.
Route::get('/feed/{secret}.ics', [FeedController::class, 'show'])->where('secret', '[a-f0-9]{48}')->withoutMiddleware('web');

// For whoever watches over the machine: the framework's own page would fetch fonts and scripts from elsewhere.
Route::get('/up', static function (Health $health): JsonResponse {
    $trouble = $health->trouble();

    return $trouble === null ? new JsonResponse(['up' => true]) : new JsonResponse(['up' => false, 'trouble' => $trouble], 503);
})->withoutMiddleware('web');

// For whoever watches machines, with the secret of the configuration; without one it is not there.
Route::get('/metrics', static function (Request $request, Metrics $metrics): Response {
    $secret = (string) config('ledger.metrics_token');
    if ($secret === '' || ! hash_equals("Bearer {$secret}", (string) $request->header('Authorization'))) {
        throw new NotFoundHttpException;
    }

    return new Response($metrics->text(), 200, ['Content-Type' => 'text/plain; version=0.0.4; charset=utf-8']);
})->withoutMiddleware('web');

// Every address of the front end is one page; the browser chooses the screen.
Route::get('/{any?}', Page::class)->where('any', '^(?!api/|build/|feed/|hook/|slip/|mail/|unsubscribe/|stand-in/|metrics$|up$).*$');
