<?php

declare(strict_types=1);

use App\Http\Access\AccountSecurityController;
use App\Http\Access\MayController;
use App\Http\Access\RoleController;
use App\Http\Access\SessionController;
use App\Http\Access\TokenController;
use App\Http\Access\WelcomeController;
use App\Http\Import\ImportController;
use App\Http\Inbound\HookController;
use App\Http\Inbound\MailRoomController;
use App\Http\Ledger\LedgerController;
use App\Http\Ledger\ReversalController;
use App\Http\Library\CalendarController;
use App\Http\Library\KeptController;
use App\Http\Library\LadderController;
use App\Http\Library\RouteController;
use App\Http\Lists\BulkController;
use App\Http\Lists\FindController;
use App\Http\Lists\ListController;
use App\Http\Lists\ViewController;
use App\Http\Middleware\ConcurrencyLimit;
use App\Http\Middleware\MayAct;
use App\Http\Middleware\Needs;
use App\Http\Middleware\TokenMay;
use App\Http\Middleware\WhileMailRoomIsOn;
use App\Http\Outbound\CallController;
use App\Http\Outbound\CustomerReconciliationController;
use App\Http\Outbound\EndpointController;
use App\Http\Outbound\MessageController;
use App\Http\Outbound\NoticeController;
use App\Http\People\LeavingController;
use App\Http\People\PeopleController;
use App\Http\Records\BesideController;
use App\Http\Records\RecordController;
use App\Http\Rehearsal\EvidenceController;
use App\Http\Rehearsal\ProofController;
use App\Http\Rules\RuleController;
use App\Http\Setup\CompanyController;
use App\Http\Setup\DescriptionController;
use App\Http\Setup\SetupController;
use App\Http\SignOffs\DecideController;
use App\Http\SignOffs\SignOffController;
use App\Http\Slips\SlipController;
use App\Http\Slips\SlipFormController;
use App\Http\Tasks\CalendarFileController;
use App\Http\Tasks\FeedController;
use App\Http\Tasks\TaskController;
use App\Http\Timing\ClockController;
use App\Http\Timing\LineController;
use App\Http\Timing\RunController;
use App\Http\Today\TodayController;
use App\Http\Today\WaitingController;
use App\Http\Types\SchemaController;
use App\Http\Types\TypeController;
use App\Http\Writing\OfferController;
use App\Http\Writing\TextController;
use App\Models\Records\Attachment;
use App\Models\Records\StoredRecord;
use App\Models\Slips\StoredSlip;
use App\Models\Timing\ScheduledLine;
use Illuminate\Support\Facades\Route;

// As many digits as a whole number of the database is sure to have.
foreach (['id', 'number'] as $whole) {
    Route::pattern($whole, '[0-9]{1,18}');
}
// Names are kept in ASCII, and the database refuses to compare them with anything else.
foreach (['type', 'field', 'mark', 'role', 'token'] as $name) {
    Route::pattern($name, '[!-.0-~]+');
}

Route::post('session', [SessionController::class, 'store']);
Route::get('door', [WelcomeController::class, 'door']);
Route::middleware('throttle:welcome')->group(function (): void {
    Route::get('welcome/{token}', [WelcomeController::class, 'show']);
    Route::post('welcome/{token}', [WelcomeController::class, 'store']);
    Route::post('welcome/{token}/company', [WelcomeController::class, 'company']);
    Route::post('password/forgotten', [WelcomeController::class, 'forgotten']);
});
// From a letter, by a link that only its reader has.
Route::middleware('throttle:decide')->group(function (): void {
    Route::get('decide/{token}', [DecideController::class, 'show']);
    Route::post('decide/{token}', [DecideController::class, 'store']);
});

Route::middleware(['auth:sanctum', TokenMay::class])->group(function (): void {
    Route::get('session', [SessionController::class, 'show']);
    Route::delete('session', [SessionController::class, 'destroy']);
    Route::put('language', [SessionController::class, 'speak']);
    Route::put('preferences', [SessionController::class, 'prefer']);
    Route::put('password', [AccountSecurityController::class, 'password']);
    Route::get('sign-ins', [AccountSecurityController::class, 'index']);
    Route::delete('sign-ins/{mark}', [AccountSecurityController::class, 'end']);
    Route::post('second-factor/begin', [AccountSecurityController::class, 'begin']);
    Route::post('second-factor', [AccountSecurityController::class, 'takeUp']);
    Route::delete('second-factor', [AccountSecurityController::class, 'giveUp']);
    Route::get('schema', [SchemaController::class, 'show']);
    Route::get('people', [PeopleController::class, 'index']);
    Route::get('roles', [RoleController::class, 'index']);
    Route::post('people/{id}/absences', [PeopleController::class, 'away']);
    Route::delete('absences/{id}', [PeopleController::class, 'back']);
    Route::get('routes', [RouteController::class, 'index']);
    Route::get('company', [CompanyController::class, 'show']);
    Route::get('today', [TodayController::class, 'show']);
    Route::get('today/team', [TodayController::class, 'team']);

    Route::get('schema/{type}/fields/{field}/rules', [EvidenceController::class, 'fieldRules']);
    Route::post('reversals/preview', [ReversalController::class, 'preview']);

    // Evidence is drawn from all records and all fields.
    Route::middleware(Needs::class.':'.Needs::ALL)->group(function (): void {
        Route::post('look-back', [EvidenceController::class, 'lookBack'])->middleware(ConcurrencyLimit::class.':look-back,2');
        Route::post('remarks', [EvidenceController::class, 'remarks']);
        Route::post('rehearse', [EvidenceController::class, 'play'])->middleware(ConcurrencyLimit::class.':rehearsal,4');
        Route::get('rules/{id}/proofs', [ProofController::class, 'index']);
        Route::get('rules/{id}/matching', [RuleController::class, 'matching']);
    });
    // Whoever sees the record reads what stands on it.
    Route::middleware(MayAct::class.':read')->group(function (): void {
        Route::get('records/{type}/{id}/sign-offs', [SignOffController::class, 'ofRecord']);
        Route::get('records/{type}/{id}/why', [LedgerController::class, 'why']);
        Route::get('records/{type}/{id}/then', [EvidenceController::class, 'then']);
        Route::get('records/{type}', [ListController::class, 'index']);
        Route::post('records/{type}/filter', [ListController::class, 'readFilter']);
        Route::post('records/{type}/filter/text', [ListController::class, 'readFilterText']);
        Route::get('records/{type}/counts/{field}', [ListController::class, 'counts']);
        Route::get('records/{type}/bin', [ListController::class, 'bin'])->middleware(MayAct::class.':delete');
        Route::get('records/{type}/groups', [ListController::class, 'groups']);
        Route::get('records/{type}/views', [ViewController::class, 'index']);
        Route::post('records/{type}/views', [ViewController::class, 'store']);
        Route::get('records/{type}/file',
            [ListController::class, 'file'])->middleware([MayAct::class.':export', ConcurrencyLimit::class.':file,1,3']);
        Route::get('records/{type}/{id}', [RecordController::class, 'show']);
        Route::get('records/{type}/{id}/account', [RecordController::class, 'account']);
        Route::get('records/{type}/{id}/beside', [BesideController::class, 'show']);
        Route::get('records/{type}/{id}/messages', [MessageController::class, 'ofRecord']);
        Route::post('records/{type}/{id}/follow', [BesideController::class, 'follow']);
        Route::get('records/{type}/{id}/tasks', [TaskController::class, 'ofRecord']);
        Route::get('records/{type}/{id}/slips', [SlipController::class, 'ofRecord']);
        Route::get('records/{type}/{id}/card', [CalendarFileController::class, 'card']);
        Route::get('records/{type}/{id}/stages', [RecordController::class, 'stages']);
        Route::get('records/{type}/{id}/stages/ahead', [RecordController::class, 'stagesAhead'])->middleware(MayAct::class.':change');
    });
    Route::put('views/{id}', [ViewController::class, 'update']);
    Route::delete('views/{id}', [ViewController::class, 'destroy']);
    Route::get('find', [FindController::class, 'index']);

    Route::get('files/{id}', [BesideController::class, 'download'])->middleware(MayAct::class.':read,'.Attachment::class);
    Route::get('files/{id}/picture', [BesideController::class, 'picture'])->middleware(MayAct::class.':read,'.Attachment::class);
    Route::get('tasks', [TaskController::class, 'index']);
    Route::get('tasks/{id}', [TaskController::class, 'show']);
    Route::get('sign-offs', [SignOffController::class, 'index']);
    Route::get('sign-offs/file', [SignOffController::class, 'file']);
    Route::get('sign-offs/{id}', [SignOffController::class, 'show']);
    // Whoever is asked may answer, whatever else they may do; the desk knows whom it asks.
    Route::post('sign-offs/answers', [SignOffController::class, 'answer']);
    Route::post('sign-offs/{id}/withdraw', [SignOffController::class, 'withdraw']);
    Route::post('sign-offs/{id}/hand-over', [SignOffController::class, 'handOver']);
    Route::post('sign-offs/{id}/ask', [SignOffController::class, 'ask']);
    Route::post('sign-offs/{id}/answer-back', [SignOffController::class, 'answerBack']);
    Route::get('slips', [SlipController::class, 'index']);
    Route::get('slip-forms', [SlipFormController::class, 'index']);
    Route::get('slip-forms/{id}/versions', [SlipFormController::class, 'versions']);
    Route::get('waiting', [WaitingController::class, 'show']);
    Route::get('notices', [NoticeController::class, 'index']);
    Route::post('notices/seen', [NoticeController::class, 'seen']);
    Route::get('notices/ways', [NoticeController::class, 'ways']);
    Route::put('notices/ways', [NoticeController::class, 'choose']);
    Route::get('notes', [MessageController::class, 'notes']);
    Route::get('messages', [MessageController::class, 'index'])->middleware(Needs::class.':see_messages');
    Route::get('messages/{id}', [MessageController::class, 'show']);
    Route::get('letters', [KeptController::class, 'letters']);
    Route::get('letters/{id}/versions', [KeptController::class, 'versions']);
    Route::get('named-conditions', [KeptController::class, 'named']);
    Route::post('offers', [OfferController::class, 'index']);
    Route::get('runs/{id}', [RunController::class, 'show']);
    Route::get('bulk', [BulkController::class, 'index']);
    Route::get('bulk/{id}', [BulkController::class, 'show']);
    Route::middleware([WhileMailRoomIsOn::class, Needs::class.':see_mail_room'])->group(function (): void {
        Route::get('mail-room', [MailRoomController::class, 'index']);
        Route::get('mail-room/{id}', [MailRoomController::class, 'show']);
        Route::get('mail-room/{id}/eml', [MailRoomController::class, 'eml']);
        Route::post('mail-room/{id}/answer', [MailRoomController::class, 'answer']);
    });
    Route::get('calendars', [CalendarController::class, 'index']);
    Route::get('ladders', [LadderController::class, 'index']);
    Route::get('ladders/offers', [LadderController::class, 'offers']);
    Route::get('clock', [ClockController::class, 'show']);
    Route::get('lines/set-aside', [LineController::class, 'setAside']);
    Route::get('lines', [LineController::class, 'index']);
    Route::post('feed', [FeedController::class, 'store']);
    Route::delete('feed', [FeedController::class, 'destroy']);
    Route::get('ledger', [LedgerController::class, 'index'])->middleware(Needs::class.':see_ledger');
    Route::get('ledger/file', [LedgerController::class, 'file'])->middleware([Needs::class.':see_ledger',
        ConcurrencyLimit::class.':file,1,3']);
    Route::get('ledger/{number}', [LedgerController::class, 'show']);
    Route::get('ledger/{number}/answers', [LedgerController::class, 'answers']);

    Route::get('rules', [RuleController::class, 'index']);
    Route::get('rules/{id}', [RuleController::class, 'show']);
    Route::get('rules/{id}/pages', [RuleController::class, 'pages']);
    Route::get('rules/{id}/difference', [RuleController::class, 'difference']);
    Route::get('rules/{id}/file', [RuleController::class, 'file']);

    Route::get('openapi.json', [DescriptionController::class, 'show']);
    Route::get('tokens', [TokenController::class, 'index']);
    Route::post('tokens', [TokenController::class, 'store']);
    Route::delete('tokens/{id}', [TokenController::class, 'destroy']);

    Route::middleware('can:edit,'.StoredRecord::class)->group(function (): void {
        Route::post('reversals', [ReversalController::class, 'reverse']);
        Route::post('records/{type}', [RecordController::class, 'store'])->middleware(MayAct::class.':create');
        Route::post('records/{type}/several', [RecordController::class, 'several'])->middleware(MayAct::class.':read');
        Route::patch('records/{type}/{id}', [RecordController::class, 'update'])->middleware(MayAct::class.':change');
        Route::delete('records/{type}/{id}', [RecordController::class, 'destroy'])->middleware(MayAct::class.':delete');
        Route::post('records/{type}/{id}/restore', [RecordController::class, 'restore'])->middleware(MayAct::class.':delete');
        Route::post('records/{type}/{id}/merge', [RecordController::class, 'merge'])->middleware(MayAct::class.':change');
        Route::post('records/{type}/{id}/comments', [BesideController::class, 'comment'])->middleware(MayAct::class.':change');
        Route::post('records/{type}/{id}/files', [BesideController::class, 'file'])->middleware(MayAct::class.':change');
        Route::post('rules/{id}/run', [RunController::class, 'store']);
        Route::post('bulk/preview', [BulkController::class, 'preview']);
        Route::post('bulk', [BulkController::class, 'store']);
        Route::post('imports', [ImportController::class, 'store']);
        Route::put('imports/{id}/pieces/{number}', [ImportController::class, 'piece']);
        Route::get('imports/{id}', [ImportController::class, 'show']);
        Route::get('imports/{id}/report', [ImportController::class, 'report'])->middleware(ConcurrencyLimit::class.':file,1,3');
        foreach (['read', 'try', 'start'] as $act) {
            Route::post("imports/{id}/{$act}", [ImportController::class, $act]);
        }
        foreach (['stop' => 'stop', 'go-on' => 'goOn', 'undo' => 'undo'] as $path => $act) {
            Route::post("bulk/{id}/{$path}", [BulkController::class, $act]);
        }
        foreach (['passOn' => 'pass-on', 'again' => 'again', 'withdraw' => 'withdraw'] as $act => $path) {
            Route::post("slips/{id}/{$path}", [SlipController::class, $act])->middleware(MayAct::class.':change,'.StoredSlip::class);
        }
        foreach (['hold', 'resume', 'strike', 'now', 'again'] as $act) {
            Route::post("lines/{id}/{$act}", [LineController::class, $act])->middleware(MayAct::class.':run,'.ScheduledLine::class);
        }
        Route::post('tasks', [TaskController::class, 'store']);
        Route::patch('tasks', [TaskController::class, 'change']);
        Route::post('tasks/calendar', [CalendarFileController::class, 'bring']);
        Route::post('tasks/{id}/complete', [TaskController::class, 'complete']);
        Route::post('tasks/{id}/reopen', [TaskController::class, 'reopen']);
    });
    Route::middleware(Needs::class.':keep_house')->group(function (): void {
        Route::post('roles', [RoleController::class, 'store']);
        Route::post('roles/{role}/difference', [RoleController::class, 'difference']);
        Route::put('roles/{role}', [RoleController::class, 'update']);
        Route::delete('roles/{role}', [RoleController::class, 'destroy']);
        Route::get('people/{id}/may', [MayController::class, 'show']);
        Route::get('people/{id}/may/{type}/{number}', [MayController::class, 'with']);
        Route::post('clock/turn', [ClockController::class, 'turn']);
        Route::patch('company', [CompanyController::class, 'update']);
        Route::post('types', [TypeController::class, 'store']);
        Route::patch('types/{type}', [TypeController::class, 'update']);
        Route::post('types/{type}/fields', [TypeController::class, 'addField']);
        Route::patch('types/{type}/fields/{field}', [TypeController::class, 'changeField']);
        Route::get('types/{type}/fields/{field}/uses', [TypeController::class, 'uses']);
        Route::delete('types/{type}/fields/{field}', [TypeController::class, 'retire']);
        Route::post('types/{type}/fields/{field}/back', [TypeController::class, 'bringBack']);
        Route::post('people', [PeopleController::class, 'store']);
        Route::post('people/list', [PeopleController::class, 'storeList']);
        Route::post('people/list/read', [PeopleController::class, 'readList']);
        Route::get('people/{id}/leaving', [LeavingController::class, 'show']);
        Route::post('people/{id}/leave', [LeavingController::class, 'leave']);
        Route::post('people/{id}/return', [LeavingController::class, 'back']);
        Route::delete('people/{id}/second-factor', [PeopleController::class, 'withoutSecondFactor']);
        Route::delete('people/{id}/sign-ins', [PeopleController::class, 'signOut']);
        Route::post('people/{id}/invite', [PeopleController::class, 'again']);
        Route::patch('people/{id}', [PeopleController::class, 'update']);
        Route::get('in-step', [CustomerReconciliationController::class, 'index']);
        Route::post('in-step/mend', [CustomerReconciliationController::class, 'mend']);
        Route::get('endpoints', [EndpointController::class, 'index']);
        Route::post('endpoints', [EndpointController::class, 'store']);
        Route::put('endpoints/{id}', [EndpointController::class, 'update']);
        Route::delete('endpoints/{id}', [EndpointController::class, 'destroy']);
        Route::get('hooks', [HookController::class, 'index']);
        Route::post('hooks', [HookController::class, 'store']);
        Route::put('hooks/{id}', [HookController::class, 'update']);
        Route::delete('hooks/{id}', [HookController::class, 'destroy']);
        Route::get('hooks/{id}/arrivals', [HookController::class, 'arrivals']);
        Route::post('hooks/{id}/try', [HookController::class, 'look']);
        Route::post('hook-arrivals/{id}/again', [HookController::class, 'again']);
        Route::get('calls', [CallController::class, 'index']);
        Route::post('calls/again', [CallController::class, 'allAgain']);
        Route::post('calls/{id}/again', [CallController::class, 'again']);
    });
    Route::middleware([Needs::class.':keep_house', Needs::class.':write_rules', Needs::class.':put_in_force'])->group(function (): void {
        Route::get('setup', [SetupController::class, 'show']);
        Route::post('setup/plan', [SetupController::class, 'plan'])->middleware(ConcurrencyLimit::class.':setup,1');
        Route::post('setup/apply', [SetupController::class, 'apply'])->middleware(ConcurrencyLimit::class.':setup,1');
    });
    Route::middleware(Needs::class.':put_in_force')->group(function (): void {
        Route::post('rules/{id}/publish', [RuleController::class, 'publish']);
        Route::post('rules/order', [RuleController::class, 'order']);
        Route::post('rules/{id}/either-or', [RuleController::class, 'stand']);
        Route::post('rules/{id}/status', [RuleController::class, 'move']);
    });
    Route::middleware(Needs::class.':write_rules')->group(function (): void {
        Route::get('today/rules', [TodayController::class, 'rules']);
        Route::post('routes', [RouteController::class, 'store']);
        Route::put('routes/{id}', [RouteController::class, 'update']);
        Route::delete('routes/{id}', [RouteController::class, 'destroy']);
        Route::get('routes/{id}/running', [RouteController::class, 'running']);
        Route::post('routes/{id}/move', [RouteController::class, 'move']);
        Route::post('slip-forms', [SlipFormController::class, 'store']);
        Route::post('slip-forms/preview', [SlipFormController::class, 'preview']);
        Route::put('slip-forms/{id}', [SlipFormController::class, 'update']);
        Route::delete('slip-forms/{id}', [SlipFormController::class, 'destroy']);
        Route::post('sign-offs/{id}/unlock', [SignOffController::class, 'unlock']);
        Route::post('rules', [RuleController::class, 'store']);
        foreach (['print', 'rule', 'line', 'sentence'] as $text) {
            Route::post("text/{$text}", [TextController::class, $text]);
        }
        Route::post('rules/read', [RuleController::class, 'read']);
        Route::post('rules/import', [RuleController::class, 'import']);
        Route::put('rules/{id}/draft', [RuleController::class, 'write']);
        Route::delete('rules/{id}/draft', [RuleController::class, 'discard']);
        Route::post('rules/{id}/pages/{number}/back', [RuleController::class, 'bringBack']);
        Route::post('rules/{id}/proofs', [ProofController::class, 'store']);
        Route::post('rules/{id}/proofs/try', [ProofController::class, 'try']);
        Route::post('rules/{id}/proofs/propose', [ProofController::class, 'propose']);
        Route::post('proofs/{id}/accept', [ProofController::class, 'accept']);
        Route::delete('proofs/{id}', [ProofController::class, 'destroy']);
        Route::post('rules/{id}/copy', [RuleController::class, 'copy']);
        Route::post('records/{type}/{id}/guards/{number}', [BesideController::class, 'reset'])->middleware(MayAct::class.':change');
        Route::post('messages/preview', [MessageController::class, 'preview']);
        Route::post('messages/{id}/again', [MessageController::class, 'again']);
        Route::post('calendars', [CalendarController::class, 'store']);
        Route::post('calendars/holidays', [CalendarController::class, 'holidays']);
        Route::put('calendars/{id}', [CalendarController::class, 'update']);
        Route::delete('calendars/{id}', [CalendarController::class, 'destroy']);
        Route::post('ladders', [LadderController::class, 'store']);
        Route::put('ladders/{id}', [LadderController::class, 'update']);
        Route::delete('ladders/{id}', [LadderController::class, 'destroy']);
        Route::get('rules/{id}/moving', [RuleController::class, 'moving']);
        Route::post('letters', [KeptController::class, 'storeLetter']);
        Route::put('letters/{id}', [KeptController::class, 'updateLetter']);
        Route::delete('letters/{id}', [KeptController::class, 'dropLetter']);
        Route::post('named-conditions', [KeptController::class, 'storeNamed']);
        Route::put('named-conditions/{id}', [KeptController::class, 'updateNamed']);
        Route::delete('named-conditions/{id}', [KeptController::class, 'dropNamed']);
    });
});
