<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Models\People\Person;
use App\Models\Slips\SlipTurnRow;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\RecordEvents;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Slips\SlipLines;
use App\Store\Slips\SlipLink;
use App\Store\Slips\SlipService;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Routing\Controller;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Language;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Slip\TurnState;
use VividLedger\Words\TypedNumber;
use VividLedger\Words\Words;

/**
 * The page to which the link of a letter leads, for people outside; and the same page inside, for colleagues who are signed in. Looking
 * at it does nothing. It works without script.
 */
final class AnswerSlipController extends Controller
{
    private const QUIET = ['Cache-Control' => 'no-store', 'X-Robots-Tag' => 'noindex'];

    public function __construct(
        private readonly AnswerSlipPage $page,
        private readonly SlipService $desk,
        private readonly SlipLines $lines,
        private readonly RecordEvents $events,
        private readonly Company $company,
    ) {
    }

    public function show(string $token, Request $request): Response
    {
        return $this->shown(fn (): SlipTurnRow => SlipLink::turn($token), "/slip/{$token}", $request);
    }

    public function answer(string $token, Request $request): Response|RedirectResponse
    {
        return $this->taken(fn (): SlipTurnRow => SlipLink::turn($token), "/slip/{$token}", $request);
    }

    public function draft(string $token, Request $request): Response
    {
        try {
            $this->desk->draft(SlipLink::turn($token), self::typed($request));
        } catch (DomainError $refused) {
            return $this->nowhere($refused, $request);
        }

        return response()->noContent();
    }

    public function showMine(int $id, Request $request): Response
    {
        return $this->shown(fn (): SlipTurnRow => self::mine($id, $request), "/slip/mine/{$id}", $request);
    }

    public function answerMine(int $id, Request $request): Response|RedirectResponse
    {
        return $this->taken(fn (): SlipTurnRow => self::mine($id, $request), "/slip/mine/{$id}", $request);
    }

    /** @param  \Closure(): SlipTurnRow  $find */
    private function shown(\Closure $find, string $at, Request $request): Response
    {
        try {
            return response($this->page->of($find(), $at, again: $request->boolean('again')), 200, self::QUIET);
        } catch (DomainError $refused) {
            return $this->nowhere($refused, $request);
        }
    }

    /** @param  \Closure(): SlipTurnRow  $find */
    private function taken(\Closure $find, string $at, Request $request): Response|RedirectResponse
    {
        try {
            $turn = $find();
        } catch (DomainError $refused) {
            return $this->nowhere($refused, $request);
        }
        $typed = self::typed($request);
        try {
            if ($this->page->isLate($turn)) {
                throw new DomainError('ended', Words::say('The time to answer has run out.'), RefusedFor::Conflict);
            }
            $files = $this->files($turn, $request);
            $person = $request->user();
            $this->desk->answer(
                $turn,
                array_map(static fn (UploadedFile $file): string => $file->getClientOriginalName(), $files) + $this->meant($turn, $typed),
                $person instanceof Person ? $person->id : $turn->person_id,
                function (RecordType $type, int $record) use ($files, $turn): void {
                    foreach ($files as $file) {
                        $this->events->file($type, $record, $file, new Actor($turn->person_id, CauseKind::Slip));
                    }
                },
            );
        } catch (DomainError $refused) {
            $status = $refused->for === RefusedFor::Invalid ? 422 : 409;
            $again = $turn->refresh()->state === TurnState::Answered;
            $words = new SlipWords($turn->language());
            $problems = $words->problems($refused, $this->lines->questions($turn->slip));

            return response($this->page->of(
                $turn, $at, $typed, $problems, $words->refusal($refused), $again && $status === 422,
            ), $status, self::QUIET);
        }

        return redirect($at, 303, self::QUIET);
    }

    /**
     * Files by the place of their question.
     *
     * @return array<int, UploadedFile>
     *
     * @throws DomainError when one is too large, or is not what its name says
     */
    private function files(SlipTurnRow $turn, Request $request): array
    {
        $files = [];
        foreach ($this->lines->questions($turn->slip) as $place => $question) {
            $file = $question->isFile ? $request->file("answers.{$place}") : null;
            if ($file instanceof UploadedFile) {
                $trouble = SlipFile::trouble($file);
                if ($trouble !== null) {
                    throw new DomainError('invalid_values', $trouble, RefusedFor::Invalid, [
                        ['at' => "/answers/{$place}", 'code' => 'invalid_file', 'message' => $trouble],
                    ]);
                }
                $files[$place] = $file;
            }
        }

        return $files;
    }

    /**
     * What is meant: a date and time by the company's clock, a number as the language of the page writes it.
     *
     * @param  array<array-key, mixed>  $typed
     * @return array<array-key, mixed>
     */
    private function meant(SlipTurnRow $turn, array $typed): array
    {
        foreach ($this->lines->questions($turn->slip) as $place => $question) {
            $text = $typed[$place] ?? null;
            if ($question->isFile) {
                unset($typed[$place]);
            } elseif ($question->field->type === FieldType::DateTime && is_string($text) && $text !== '') {
                $at = \DateTimeImmutable::createFromFormat('!Y-m-d\TH:i', $text, $this->company->zone());
                $typed[$place] = $at === false ? $text : $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
            } elseif ($question->field->type->isDecimal() && is_string($text)) {
                $typed[$place] = TypedNumber::read($text, $turn->language()->value);
            } elseif ($question->field->type === FieldType::Tick) {
                $typed[$place] = $text !== null && $text !== '' && $text !== '0';
            }
        }

        return $typed;
    }

    /** @return array<array-key, mixed> what came along, with what is no text replaced: a form cannot tell where it is wrong */
    private static function typed(Request $request): array
    {
        $typed = $request->input('answers');
        $typed = is_array($typed) ? $typed : [];
        array_walk_recursive($typed, static function (mixed &$text): void {
            $text = is_string($text) ? str_replace("\0", '', mb_scrub($text)) : $text;
        });

        return $typed;
    }

    /** Whose it would be is not known, so it speaks the language of their browser. */
    private function nowhere(DomainError $refused, Request $request): Response
    {
        $languages = array_map(static fn (Language $one): string => $one->value, Language::cases());
        $words = new SlipWords(Language::tryFrom((string) $request->getPreferredLanguage($languages)) ?? Language::English);

        return response($this->page->nothing($words->refusal($refused), $words), 404, self::QUIET);
    }

    /** @throws DomainError when nobody asks them */
    private static function mine(int $id, Request $request): SlipTurnRow
    {
        $person = $request->user();
        $turn = $person instanceof Person ? SlipTurnRow::query()->with('slip.turns')->where('slip_id', $id)
            ->where('person_id', $person->id)->latest('place')->first() : null;

        return $turn ?? throw DomainError::missing(Words::say('No slip of that number waits for you.'));
    }
}
