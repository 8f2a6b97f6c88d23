<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Models\SignOffs\SignOffSeat;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\HouseClock;
use App\Store\People\PeopleStore;
use App\Store\SignOffs\CaseFacts;
use App\Store\SignOffs\SignOffLink;
use App\Store\SignOffs\SignOffService;
use App\Store\Types\SchemaStore;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\SeatState;
use VividLedger\Words\Words;

/**
 * The page that a letter about a sign-off leads to. Looking at it decides nothing, so that a program that follows the links of a
 * mail does no harm; it takes a press of a button, and that once.
 */
final class DecideController extends Controller
{
    public function __construct(
        private readonly HouseClock $clock,
        private readonly SchemaStore $schemas,
        private readonly PeopleStore $names,
        private readonly CaseFacts $facts,
        private readonly AccessScope $inSight,
    ) {
    }

    #[OA\Get(
        path: '/api/decide/{token}',
        operationId: 'decisionPage',
        description: 'The case that the link of a letter leads to. Nobody has to be signed in.',
        tags: ['sign-offs'],
        responses: [new Ok(DecisionPage::class)],
    )]
    public function show(string $token): DecisionPage
    {
        return $this->page(SignOffLink::seat($token, $this->clock->now()));
    }

    #[OA\Post(
        path: '/api/decide/{token}',
        operationId: 'decide',
        description: 'Says yes or no from a letter. The link is used up by that.',
        tags: ['sign-offs'],
        responses: [new Ok(DecisionPage::class)],
    )]
    public function store(string $token, DecisionInput $request, SignOffService $desk): DecisionPage
    {
        $given = $request->validated();
        $seat = SignOffLink::seat($token, $this->clock->now());
        $desk->answer($seat->sign_off_id, $seat->person_id, Answer::from($given['answer']), $given['comment'] ?? '');

        return $this->page(SignOffLink::seat($token, $this->clock->now()));
    }

    private function page(SignOffSeat $seat): DecisionPage
    {
        $kept = $seat->signOff->load(['asker', 'rule']);
        $type = $this->schemas->schema()->type($kept->record_type);
        $number = $type?->numberOf($kept->record_id) ?? '';
        $title = $this->names->title($kept->record_type, $kept->record_id) ?? '';
        $isOpen = $seat->state === SeatState::Waiting;

        return new DecisionPage(
            record: trim(($type->label ?? '')." {$number}").($title === '' || $title === $number ? '' : ", {$title}"),
            why: (new SeenTexts($this->inSight->of($seat->person)))->shown($kept->why, $kept->tells), asker: $kept->asker?->name,
            rule: $kept->rule->name ?? '', person: $this->names->person($seat->person_id)->name ?? '', isOpen: $isOpen,
            said: $isOpen ? '' : self::said($seat), dueAt: $seat->due_at === null ? null : Value::instantText($seat->due_at),
            isNew: $this->facts->isNew($kept), changed: SignOffCases::changes($this->facts->of($kept, $seat->person)),
        );
    }

    private static function said(SignOffSeat $seat): string
    {
        return match ($seat->state) {
            SeatState::Yes => $seat->by_itself ? Words::say('It counts as agreed.') : Words::say('You have agreed.'),
            SeatState::No => $seat->by_itself ? Words::say('It counts as declined.') : Words::say('You have declined.'),
            SeatState::PassedOn => Words::say('Somebody else decides instead of you.'),
            default => Words::say('It is {status}, and you need not answer any more.', status: $seat->signOff->status->said()),
        };
    }
}
