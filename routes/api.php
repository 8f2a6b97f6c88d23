<?php

declare(strict_types=1);

use App\Http\Api\BesideController;
use App\Http\Api\CalendarController;
use App\Http\Api\ClockController;
use App\Http\Api\CompanyController;
use App\Http\Api\EvidenceController;
use App\Http\Api\FeedController;
use App\Http\Api\KeptController;
use App\Http\Api\LadderController;
use App\Http\Api\LedgerController;
use App\Http\Api\LineController;
use App\Http\Api\MailRoomController;
use App\Http\Api\MessageController;
use App\Http\Api\OfferController;
use App\Http\Api\ProofController;
use App\Http\Api\RecordController;
use App\Http\Api\ReversalController;
use App\Http\Api\RuleController;
use App\Http\Api\RunController;
use App\Http\Api\SchemaController;
use App\Http\Api\SessionController;
use App\Http\Api\TaskController;
use App\Http\Api\TextController;
use App\Http\Api\TodayController;
use App\Http\Api\TokenController;
use Illuminate\Support\Facades\Route;

Route::post('session', [SessionController::class, 'store'])->middleware('throttle:sign-in');

Route::middleware('auth:sanctum')->group(function (): void {
    Route::get('session', [SessionController::class, 'show']);
    Route::delete('session', [SessionController::class, 'destroy']);
    Route::get('schema', [SchemaController::class, 'show']);
    Route::get('people', [CompanyController::class, 'people']);
    Route::get('company', [CompanyController::class, 'show']);
    Route::get('today', [TodayController::class, 'show']);

    Route::get('schema/{type}/fields/{field}/rules', [EvidenceController::class, 'fieldRules']);
    Route::get('records/{type}/{id}/why', [LedgerController::class, 'why'])->whereNumber('id');
    Route::post('reversals/preview', [ReversalController::class, 'preview']);
    Route::post('look-back', [EvidenceController::class, 'lookBack']);
    Route::get('records/{type}/{id}/then', [EvidenceController::class, 'then'])->whereNumber('id');
    Route::post('remarks', [EvidenceController::class, 'remarks']);
    Route::post('rehearse', [EvidenceController::class, 'play']);

    Route::get('records/{type}', [RecordController::class, 'index']);
    Route::post('records/{type}/filter', [RecordController::class, 'readFilter']);
    Route::get('records/{type}/counts/{field}', [RecordController::class, 'counts']);
    Route::get('records/{type}/{id}', [RecordController::class, 'show'])->whereNumber('id');
    Route::get('records/{type}/{id}/account', [RecordController::class, 'account'])->whereNumber('id');

    Route::get('records/{type}/{id}/beside', [BesideController::class, 'show'])->whereNumber('id');
    Route::get('records/{type}/{id}/messages', [MessageController::class, 'ofRecord'])->whereNumber('id');
    Route::get('files/{id}', [BesideController::class, 'download'])->whereNumber('id');
    Route::post('records/{type}/{id}/follow', [BesideController::class, 'follow'])->whereNumber('id');
    Route::get('tasks', [TaskController::class, 'index']);
    Route::get('notes', [MessageController::class, 'notes']);
    Route::get('messages', [MessageController::class, 'index']);
    Route::get('messages/{id}', [MessageController::class, 'show'])->whereNumber('id');
    Route::get('letters', [KeptController::class, 'letters']);
    Route::get('letters/{id}/versions', [KeptController::class, 'versions'])->whereNumber('id');
    Route::get('named-conditions', [KeptController::class, 'named']);
    Route::post('offers', [OfferController::class, 'index']);
    Route::get('runs/{id}', [RunController::class, 'show'])->whereNumber('id');
    Route::get('mail-room', [MailRoomController::class, 'index']);
    Route::get('mail-room/{id}', [MailRoomController::class, 'show'])->whereNumber('id');
    Route::get('mail-room/{id}/eml', [MailRoomController::class, 'eml'])->whereNumber('id');
    Route::get('calendars', [CalendarController::class, 'index']);
    Route::get('ladders', [LadderController::class, 'index']);
    Route::get('clock', [ClockController::class, 'show']);
    Route::get('lines', [LineController::class, 'index']);
    Route::post('feed', [FeedController::class, 'store']);
    Route::delete('feed', [FeedController::class, 'destroy']);
    Route::get('records/{type}/{id}/stages', [RecordController::class, 'stages'])->whereNumber('id');
    Route::get('ledger', [LedgerController::class, 'index']);
    Route::get('ledger/{number}', [LedgerController::class, 'show'])->whereNumber('number');
    Route::get('ledger/{number}/answers', [LedgerController::class, 'answers'])->whereNumber('number');

    Route::get('rules', [RuleController::class, 'index']);
    Route::get('rules/{id}', [RuleController::class, 'show'])->whereNumber('id');
    Route::get('rules/{id}/pages', [RuleController::class, 'pages'])->whereNumber('id');
    Route::get('rules/{id}/difference', [RuleController::class, 'difference'])->whereNumber('id');
    Route::get('rules/{id}/proofs', [ProofController::class, 'index'])->whereNumber('id');
    Route::get('rules/{id}/file', [RuleController::class, 'file'])->whereNumber('id');
    Route::get('rules/{id}/matching', [RuleController::class, 'matching'])->whereNumber('id');

    Route::get('tokens', [TokenController::class, 'index']);
    Route::post('tokens', [TokenController::class, 'store']);
    Route::delete('tokens/{id}', [TokenController::class, 'destroy'])->whereNumber('id');

    Route::middleware('can:edit-records')->group(function (): void {
        Route::post('records/{type}', [RecordController::class, 'store']);
        Route::patch('records/{type}/{id}', [RecordController::class, 'update'])->whereNumber('id');
        Route::delete('records/{type}/{id}', [RecordController::class, 'destroy'])->whereNumber('id');
        Route::post('records/{type}/{id}/restore', [RecordController::class, 'restore'])->whereNumber('id');
        Route::post('records/{type}/{id}/comments', [BesideController::class, 'comment'])->whereNumber('id');
        Route::post('records/{type}/{id}/files', [BesideController::class, 'file'])->whereNumber('id');
        Route::post('rules/{id}/run', [RunController::class, 'store'])->whereNumber('id');
        Route::post('clock/turn', [ClockController::class, 'turn']);
        Route::post('mail-room/{id}/answer', [MailRoomController::class, 'answer'])->whereNumber('id');
        foreach (['hold', 'resume', 'strike', 'now'] as $act) {
            Route::post("lines/{id}/{$act}", [LineController::class, $act])->whereNumber('id');
        }
        Route::patch('tasks', [TaskController::class, 'change']);
        Route::post('tasks/{id}/complete', [TaskController::class, 'complete'])->whereNumber('id');
        Route::post('tasks/{id}/reopen', [TaskController::class, 'reopen'])->whereNumber('id');
    });
    Route::middleware('can:edit-rules')->group(function (): void {
        Route::patch('company', [CompanyController::class, 'update']);
        Route::post('rules', [RuleController::class, 'store']);
        foreach (['print', 'rule', 'line'] as $text) {
            Route::post("text/{$text}", [TextController::class, $text]);
        }
        Route::post('rules/read', [RuleController::class, 'read']);
        Route::post('rules/import', [RuleController::class, 'import']);
        Route::put('rules/{id}/draft', [RuleController::class, 'write'])->whereNumber('id');
        Route::delete('rules/{id}/draft', [RuleController::class, 'discard'])->whereNumber('id');
        Route::post('rules/{id}/publish', [RuleController::class, 'publish'])->whereNumber('id');
        Route::post('reversals', [ReversalController::class, 'reverse']);
        Route::post('rules/{id}/pages/{number}/back', [RuleController::class, 'bringBack'])->whereNumber(['id', 'number']);
        Route::post('rules/{id}/proofs', [ProofController::class, 'store'])->whereNumber('id');
        Route::post('rules/{id}/proofs/try', [ProofController::class, 'try'])->whereNumber('id');
        Route::post('rules/{id}/proofs/propose', [ProofController::class, 'propose'])->whereNumber('id');
        Route::post('proofs/{id}/accept', [ProofController::class, 'accept'])->whereNumber('id');
        Route::delete('proofs/{id}', [ProofController::class, 'destroy'])->whereNumber('id');
        Route::post('rules/order', [RuleController::class, 'order']);
        Route::post('rules/{id}/either-or', [RuleController::class, 'stand'])->whereNumber('id');
        Route::post('rules/{id}/copy', [RuleController::class, 'copy'])->whereNumber('id');
        Route::post('records/{type}/{id}/guards/{number}', [BesideController::class, 'reset'])->whereNumber(['id', 'number']);
        Route::post('messages/preview', [MessageController::class, 'preview']);
        Route::post('messages/{id}/again', [MessageController::class, 'again'])->whereNumber('id');
        Route::post('calendars', [CalendarController::class, 'store']);
        Route::post('calendars/holidays', [CalendarController::class, 'holidays']);
        Route::put('calendars/{id}', [CalendarController::class, 'update'])->whereNumber('id');
        Route::delete('calendars/{id}', [CalendarController::class, 'destroy'])->whereNumber('id');
        Route::post('ladders', [LadderController::class, 'store']);
        Route::put('ladders/{id}', [LadderController::class, 'update'])->whereNumber('id');
        Route::delete('ladders/{id}', [LadderController::class, 'destroy'])->whereNumber('id');
        Route::get('rules/{id}/moving', [RuleController::class, 'moving'])->whereNumber('id');
        Route::post('letters', [KeptController::class, 'storeLetter']);
        Route::put('letters/{id}', [KeptController::class, 'updateLetter'])->whereNumber('id');
        Route::delete('letters/{id}', [KeptController::class, 'dropLetter'])->whereNumber('id');
        Route::post('named-conditions', [KeptController::class, 'storeNamed']);
        Route::put('named-conditions/{id}', [KeptController::class, 'updateNamed'])->whereNumber('id');
        Route::delete('named-conditions/{id}', [KeptController::class, 'dropNamed'])->whereNumber('id');
        Route::post('rules/{id}/status', [RuleController::class, 'move'])->whereNumber('id');
    });
});
