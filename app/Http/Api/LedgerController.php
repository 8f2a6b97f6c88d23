<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\AnswerShape;
use App\Http\Api\Shape\EntryDetail;
use App\Http\Api\Shape\LedgerPage;
use App\Http\Api\Shape\MomentAnswers;
use App\Http\Api\Shape\VerdictShape;
use App\Store\Columns;
use App\Store\Refused;
use App\Store\WhyNot;
use App\Work\HouseClock;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** The ledger: every entry, and why it is there. */
final class LedgerController extends Controller
{
    private const KINDS = [
        'edits' => ['created', 'changed', 'deleted', 'restored', 'comment', 'file', 'reply', 'by_hand'],
        'rules' => [
            'fired', 'stopped', 'refused', 'ready_again', 'line', 'struck', 'retimed', 'postponed', 'too_late', 'line_failed', 'held',
            'resumed', 'gathered', 'reversed', 'unsure', 'cut_off',
        ],
        'tasks' => ['task_done', 'task_reopened', 'task_due', 'task_changed'],
        'administration' => ['rule_in_force', 'rule_paused', 'rule_retired', 'rules_ordered', 'rule_in_set'],
    ];

    public function __construct(private readonly Entries $entries)
    {
    }

    #[OA\Get(path: '/api/ledger', operationId: 'ledger', description: 'Entries, the newest first; with "after", those that came since, the oldest first. All can be read by asking again with the number that comes back.', tags: ['ledger'], parameters: [
        new Query(
            'show',
            'string',
            'Entries of one sort only.',
            ['edits', 'rules', 'tasks', 'administration'],
        ), new Query('rule', 'integer'), new Query('before', 'integer', 'Only entries with a lower number.'), new Query('after', 'integer', 'Only entries with a higher number, the lowest first.'),
    ], responses: [new Ok(LedgerPage::class)])]
    public function index(Request $request): LedgerPage
    {
        $given = $request->validate([
            'show' => 'nullable|in:edits,rules,tasks,administration', 'rule' => 'nullable|integer', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before',
        ]);
        $where = ['TRUE'];
        $bindings = [];
        if (isset($given['show'])) {
            $kinds = self::KINDS[$given['show']];
            $where[] = 'e.kind IN ('.implode(', ', array_fill(0, count($kinds), '?')).')';
            array_push($bindings, ...$kinds);
        }
        foreach (['rule' => 'e.rule_id = ?', 'before' => 'e.id < ?', 'after' => 'e.id > ?'] as $name => $condition) {
            if (isset($given[$name])) {
                $where[] = $condition;
                $bindings[] = (int) $given[$name];
            }
        }
        $isAfter = isset($given['after']);
        $entries = $this->entries->read(implode(' AND ', $where), $bindings, oldestFirst: $isAfter);
        $last = $entries[count($entries) - 1]->number ?? null;

        return new LedgerPage(
            $entries,
            ! $isAfter && count($entries) === Entries::A_PAGE ? $last : null,
            $isAfter ? $last ?? (int) $given['after'] : null,
        );
    }

    #[
        OA\Get(
            path: '/api/ledger/{number}',
            operationId: 'entry',
            description: 'One entry, what caused it, and what it caused.',
            tags: ['ledger'],
            responses: [new Ok(EntryDetail::class)],
        ),
    ]
    public function show(int $number): EntryDetail
    {
        $entry = $this->entries->one($number) ?? throw new Refused('not_found', "There is no entry {$number}.", 404);
        $causes = [];
        for ($cause = $entry->cause; $cause !== null; $cause = $above->cause) {
            $above = $this->entries->one($cause);
            if ($above === null) {
                break;
            }
            $causes[] = $above;
        }

        return new EntryDetail($entry, $causes, array_reverse($this->entries->read('e.cause_id = ?', [$number])));
    }

    #[OA\Get(path: '/api/records/{type}/{id}/why', operationId: 'whyAtMoment', description: 'Why a rule did or did not fire on a record at a moment: what it made of the last thing that happened to the record until then.', tags: ['ledger'], parameters: [new Query('at', 'string', 'A moment; left out, now.'), new Query('rule', 'integer', 'Of one rule only.')], responses: [new Ok(MomentAnswers::class)])]
    public function why(string $type, int $id, Request $request, WhyNot $whyNot, HouseClock $clock): MomentAnswers
    {
        $given = $request->validate(['at' => ['nullable', new Moment], 'rule' => 'nullable|integer']);
        $at = isset($given['at']) ? new \DateTimeImmutable($given['at']) : $clock->now();
        $entry = $this->entries->read("e.record_type = ? AND e.record_id = ? AND e.at <= ? AND e.kind IN ('created', 'changed', 'deleted', 'comment', 'file', 'reply', 'task_done', 'by_hand')", [$this->type($type)->name, $id, Columns::moment($at)], 1)[0]
            ?? throw new Refused('nothing_happened', 'Nothing had happened to the record by then, so no rule was asked.', 404);

        return new MomentAnswers($entry, array_map(static fn (array $answer): AnswerShape => new AnswerShape($answer['rule'], $answer['name'], $answer['page'], $answer['firedIn'], VerdictShape::of($answer['verdict'])), $whyNot->answers($entry->number, isset($given['rule']) ? (int) $given['rule'] : null)));
    }

    #[OA\Get(path: '/api/ledger/{number}/answers', operationId: 'answers', description: 'What every rule then in force made of a save: the answer to "why" and "why not".', tags: ['ledger'], parameters: [new Query('rule', 'integer')], responses: [new Ok(AnswerShape::class, list: true)])]
    public function answers(int $number, Request $request, WhyNot $whyNot): JsonResponse
    {
        $given = $request->validate(['rule' => 'nullable|integer']);

        return new JsonResponse($whyNot->answers($number, isset($given['rule']) ? (int) $given['rule'] : null));
    }
}
