<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Http\Describe\Body;
use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Setup\OpenLetter;
use App\Models\Outbound\MailKind;
use App\StandIn\Eml;
use App\StandIn\MailRoom;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\RecordEvents;
use App\Store\RefusedFor;
use App\Work\Inbound\AnswerMail;
use App\Work\Inbound\InboundMail;
use App\Work\Outbound\OutboxRelay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Record\Value;
use VividLedger\Template\RichText;
use VividLedger\Words\Words;

/** The shelf of the mail room, the stand-in that takes in whatever the application sends. */
final class MailRoomController extends Controller
{
    public function __construct(private readonly Shelf $room)
    {
    }

    #[OA\Get(path: '/api/mail-room', operationId: 'shelf', description: 'The letters on the shelf, the newest first. All can be read by '
        .'asking again with the last id.', tags: ['mail room'], responses: [new Ok(ShelfPage::class)])]
    public function index(MailRoomInput $request): ShelfPage
    {
        $given = $request->validated();

        return $this->room->page($given['search'] ?? '', self::number($given, 'before'), self::number($given, 'after'));
    }

    #[
        OA\Get(
            path: '/api/mail-room/{id}',
            operationId: 'openLetter',
            description: 'One letter on the shelf of the mail room, ready to be shown.',
            tags: ['mail room'],
            responses: [new Ok(OpenLetter::class)],
        ),
    ]
    public function show(int $id): OpenLetter
    {
        $row = $this->room->letter($id);
        $letter = Eml::read($row->kind === 'email' ? $row->raw : '');

        $headers = array_map(
            static fn (string $name, string $value): string => "{$name}: {$value}",
            array_keys($letter->headers),
            $letter->headers,
        );
        $replyTo = $letter->header('Reply-To');

        return new OpenLetter(
            id: $id, kind: $row->kind, at: Value::instantText($row->at), sender: $row->sender, recipients: $row->recipients,
            cc: $letter->header('Cc'),
            replyTo: $replyTo === '' ? null
            : $replyTo,
            subject: $row->subject, html: RichText::mail($this->body($letter->html())), text: $row->text, headers: $headers,
        );
    }

    #[
        OA\Get(
            path: '/api/mail-room/{id}/eml',
            operationId: 'letterFile',
            description: 'The letter as it came, as a file.',
            tags: ['mail room'],
            responses: [new OA\Response(response: 200, description: 'An EML file.')],
        ),
    ]
    public function eml(int $id): Response
    {
        return response($this->room->letter($id)->raw, 200, [
            'Content-Type' => 'message/rfc822', 'X-Content-Type-Options' => 'nosniff',
            'Content-Disposition' => "attachment; filename=\"letter-{$id}.eml\"",
        ]);
    }

    #[
        OA\Post(
            path: '/api/mail-room/{id}/answer',
            operationId: 'answerLetter',
            description: 'Answers a letter as the one who got it would; the answer arrives at the record the letter is about.',
            tags: ['mail room'],
            responses: [new Ok],
        ),
    ]
    public function answer(int $id, AnswerInput $request, RecordEvents $remarks, InboundMail $door): Response
    {
        $text = (string) $request->validated()['text'];
        $letter = $this->room->letter($id);
        if ($letter->kind === 'email') {
            // By the same door as real mail, as the mail program of whoever got it would write it.
            $mail = $door->take(AnswerMail::of(Eml::read($letter->raw), self::address($letter->recipients), $text));
            if ($mail->kind === MailKind::Refused) {
                throw new DomainError('not_taken', $mail->trouble, RefusedFor::Conflict);
            }
            if ($mail->kind !== MailKind::Unknown) {
                return response()->noContent();
            }
        }
        $message = $this->room->messageBehind($letter);
        if ($message === null || $message->record_id === 0) {
            throw new DomainError(
                'not_about_a_record',
                Words::say('This letter is about no record, so an answer would lead nowhere.'),
                RefusedFor::Conflict,
            );
        }
        $remarks->reply($this->type($message->record_type), $message->record_id, $text, $letter->recipients, new Actor(null));

        return response()->noContent();
    }

    /** Where a gateway for text messages would be: takes one in and puts it on the shelf. */
    public function takeText(TextMessageInput $request, MailRoom $room): JsonResponse
    {
        if (! hash_equals(OutboxRelay::gatewayToken(), (string) $request->bearerToken())) {
            return new JsonResponse(['error' => 'Not allowed.'], 401);
        }
        $given = $request->validated();
        $key = (string) $request->header('Idempotency-Key', hash('sha256', $given['to'].$given['text']));
        $room->takeText($key, $given['to'], $given['text']);

        return new JsonResponse(['taken' => true], 202);
    }

    /** Where a mail server hands over what came in for us: a mail as it is, in the body; by a bearer's secret, or by a signed address. */
    public function takeMail(Request $request, InboundMail $door, string $sign = ''): JsonResponse
    {
        if (! hash_equals(OutboxRelay::gatewayToken(), (string) $request->bearerToken()) && ! hash_equals(InboundMail::sign(), $sign)) {
            return new JsonResponse(['error' => 'Not allowed.'], 401);
        }
        try {
            $mail = $door->take((string) $request->getContent());
        } catch (\DomainException $bad) {
            return new JsonResponse(['taken' => false, 'why' => $bad->getMessage()], 422);
        }
        $isTaken = in_array($mail->kind, [MailKind::Reply, MailKind::Decision], true);

        // A server would hand it over again and again if it were not taken.
        return new JsonResponse(
            ['taken' => $isTaken, 'kind' => $mail->kind->value] + ($mail->trouble === '' ? [] : ['why' => $mail->trouble]),
            $isTaken ? 202 : 200,
        );
    }

    private static function address(string $recipients): string
    {
        return preg_match('/[^\s<>,]+@[^\s<>,]+/', $recipients, $found) === 1 ? $found[0] : 'somebody@localhost';
    }

    /** What stands between the tags of the body, or all of it where there are none. */
    private function body(string $html): string
    {
        return preg_match('#<body[^>]*>(.*)</body>#is', $html, $found) === 1 ? $found[1] : $html;
    }
}
