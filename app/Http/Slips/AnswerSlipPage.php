<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Models\Slips\SlipTurnRow;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\HouseClock;
use App\Store\Setup\Company;
use App\Store\Slips\SlipLines;
use App\Store\Slips\SlipService;
use Illuminate\Contracts\View\View;
use VividLedger\Record\Language;
use VividLedger\Slip\Question;
use VividLedger\Slip\TurnState;
use VividLedger\Template\RichText;
use VividLedger\Words\TypedNumber;

/** The page of a slip, as it is drawn for whoever answers and for whoever writes it: one page, made on the server, that needs no script. */
final readonly class AnswerSlipPage
{
    public function __construct(
        private SlipLines $lines,
        private SlipService $desk,
        private HouseClock $clock,
        private Company $company,
        private AccessScope $inSight,
    ) {
    }

    /**
     * @param  string  $action  where the answers go
     * @param  array<array-key, mixed>  $typed  what was typed just now, where it could not be taken
     * @param  array<string, string>  $problems  by the place of the question
     * @param  string  $trouble  what is wrong with all of it
     */
    public function of(
        SlipTurnRow $turn,
        string $action,
        array $typed = [],
        array $problems = [],
        string $trouble = '',
        bool $again = false,
    ): View {
        $slip = $turn->slip;
        $isOpen = $turn->state === TurnState::Waiting && ! $this->isLate($turn);
        $mayCorrect = $turn->state === TurnState::Answered && $this->desk->mayCorrect($slip);
        $asks = $isOpen || ($mayCorrect && $again);
        $words = new SlipWords($turn->language());
        // A colleague reads it as they read anything inside; whoever has the link of a letter has had the letter.
        $texts = new SeenTexts($turn->person === null ? $this->inSight : $this->inSight->of($turn->person));
        $isSeen = $turn->person === null || $texts->may($slip->tells);

        return $this->page([
            'subject' => $isSeen ? $slip->subject : SeenTexts::withheld(), 'html' => $isSeen ? RichText::mail($slip->html) : '',
            'action' => $action,
            'questions' => $asks ? $this->drawn($this->lines->questions($slip), $this->values($turn, $typed), $words) : [],
            'problems' => $problems, 'trouble' => $trouble, 'asks' => $asks, 'said' => $asks ? [] : ($slip->said ?? []),
            'mayCorrect' => $mayCorrect && ! $again, 'why' => $asks ? '' : $this->why($turn, $words),
        ], $words);
    }

    /**
     * As it would look, of questions that are being written.
     *
     * @param  list<Question>  $questions
     */
    public function preview(string $subject, string $html, array $questions): View
    {
        $words = new SlipWords(Language::English);

        return $this->page([
            'subject' => $subject, 'html' => RichText::mail($html), 'action' => '#', 'questions' => $this->drawn($questions, [], $words),
            'problems' => [], 'trouble' => '', 'asks' => true, 'said' => [], 'mayCorrect' => false, 'why' => '',
        ], $words);
    }

    /** Where there is nothing to answer, and why. */
    public function nothing(string $why, SlipWords $words): View
    {
        return $this->page([
            'subject' => $words->of('nothing'), 'html' => '', 'action' => '', 'questions' => [], 'problems' => [], 'trouble' => '',
            'asks' => false, 'said' => [], 'mayCorrect' => false, 'why' => $why,
        ], $words);
    }

    public function isLate(SlipTurnRow $turn): bool
    {
        $until = $turn->due_at ?? $turn->sent_at->modify('+'.SlipService::LINK_DAYS.' days');

        return $turn->state === TurnState::Waiting && $until <= $this->clock->now();
    }

    /** @param  array<string, mixed>  $with */
    private function page(array $with, SlipWords $words): View
    {
        return view('slip', $with + ['company' => $this->company->name(), 'words' => $words]);
    }

    /**
     * @param  list<Question>  $questions
     * @param  array<array-key, mixed>  $values
     * @return list<SlipControl>
     */
    private function drawn(array $questions, array $values, SlipWords $words): array
    {
        $drawn = [];
        foreach ($questions as $place => $question) {
            $drawn[] = SlipControl::of($question, $place, $values[$place] ?? null, $questions, $words);
        }

        return $drawn;
    }

    /**
     * @param  array<array-key, mixed>  $typed
     * @return array<array-key, mixed> what was typed just now, answered before, or typed earlier and not sent
     */
    private function values(SlipTurnRow $turn, array $typed): array
    {
        if ($typed !== [] || $turn->state !== TurnState::Answered) {
            return $typed !== [] ? $typed : $turn->draft ?? [];
        }
        $values = $turn->slip->given ?? [];
        foreach ($this->lines->questions($turn->slip) as $place => $question) {
            if ($question->field->type->isDecimal() && is_scalar($values[$place] ?? null)) {
                $values[$place] = TypedNumber::shown((string) $values[$place], $turn->language()->value);
            }
        }

        return $values;
    }

    private function why(SlipTurnRow $turn, SlipWords $words): string
    {
        return $words->of(match (true) {
            $this->isLate($turn) => 'late',
            $turn->state === TurnState::Answered => 'thanks',
            $turn->state === TurnState::PassedOn => 'passed_on',
            default => "over.{$turn->slip->status->value}",
        });
    }
}
