<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Describe\Query;
use App\Http\Api\Shape\OpenLetter;
use App\Http\Api\Shape\ShelfLetter;
use App\Http\Api\Shape\ShelfPage;
use App\StandIn\Eml;
use App\StandIn\MailRoom;
use App\Store\Actor;
use App\Store\Columns;
use App\Store\Refused;
use App\Store\Remarks;
use App\Work\Postman;
use Illuminate\Database\Connection;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use OpenApi\Attributes as OA;
use VividLedger\Template\RichText;

/** The shelf of the mail room, the stand-in that takes in whatever the application sends. */
final class MailRoomController extends Controller
{
    private const A_PAGE = 100;

    public function __construct(private readonly Connection $db)
    {
    }

    #[OA\Get(path: '/api/mail-room', operationId: 'shelf', description: 'The letters on the shelf, the newest first. All can be read by asking again with the last id.', tags: ['mail room'], parameters: [
        new Query('search', 'string', 'Words that all have to be found.'), new Query('before', 'integer', 'Only letters with a lower id.'), new Query(
            'after',
            'integer',
            'Only letters with a higher id, the lowest first.',
        ),
    ], responses: [new Ok(ShelfPage::class)])]
    public function index(Request $request): ShelfPage
    {
        $given = $request->validate([
            'search' => 'nullable|string|max:200', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before',
        ]);
        $where = 'TRUE';
        $bindings = [];
        foreach (preg_split('/\s+/u', trim($given['search'] ?? ''), -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $where .= ' AND CONCAT_WS(" ", sender, recipients, subject, text) LIKE ?';
            $bindings[] = '%'.addcslashes($word, '\\%_').'%';
        }
        $total = (int) $this->db->scalar("SELECT COUNT(*) FROM mail_room WHERE {$where}", $bindings);
        $isAfter = isset($given['after']);
        if ($isAfter || isset($given['before'])) {
            $where .= $isAfter ? ' AND id > ?' : ' AND id < ?';
            $bindings[] = (int) ($given['after'] ?? $given['before']);
        }
        $direction = $isAfter ? 'ASC' : 'DESC';
        $rows = $this->db->select(
            "SELECT id, kind, at, sender, recipients, subject, LEFT(text, 160) AS glimpse FROM mail_room WHERE {$where} ORDER BY id {$direction} LIMIT ".self::A_PAGE,
            $bindings,
        );

        return new ShelfPage(
            array_map(static fn (object $row): ShelfLetter => new ShelfLetter((int) $row->id, $row->kind, (string) Columns::iso($row->at), $row->sender, $row->recipients, $row->subject, trim((string) preg_replace('/\s+/u', ' ', $row->glimpse))), $rows),
            $total,
        );
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
        $row = $this->row($id);
        $letter = Eml::read($row->kind === 'email' ? $row->raw : '');

        return new OpenLetter(
            $id, $row->kind, (string) Columns::iso($row->at), $row->sender, $row->recipients, $letter->header('Cc'), $letter->header('Reply-To') === '' ? null : $letter->header('Reply-To'), $row->subject,
            RichText::mail($this->body($letter->html())), $row->text, array_map(
                static fn (string $name, string $value): string => "{$name}: {$value}",
                array_keys($letter->headers),
                $letter->headers,
            ),
        );
    }

    #[OA\Get(path: '/api/mail-room/{id}/eml', operationId: 'letterFile', description: 'The letter as it came, as a file.', tags: ['mail room'], responses: [new OA\Response(response: 200, description: 'An EML file.')])]
    public function eml(int $id): Response
    {
        return response($this->row($id)->raw, 200, ['Content-Type' => 'message/rfc822', 'X-Content-Type-Options' => 'nosniff', 'Content-Disposition' => "attachment; filename=\"letter-{$id}.eml\""]);
    }

    #[OA\Post(path: '/api/mail-room/{id}/answer', operationId: 'answerLetter', description: 'Answers a letter as the one who got it would; the answer arrives at the record the letter is about.', tags: ['mail room'], requestBody: new Body(['text' => 'string']), responses: [new Ok])]
    public function answer(int $id, Request $request, Remarks $remarks): Response
    {
        $given = $request->validate(['text' => 'present|nullable|string']);
        $letter = $this->row($id);
        $message = $this->db->selectOne('SELECT record_type, record_id FROM messages WHERE `key` = ?', [explode('@', $letter->message_id)[0]]);
        if ($message === null || (int) $message->record_id === 0) {
            throw new Refused('not_about_a_record', 'This letter is about no record, so an answer would lead nowhere.', 409);
        }
        $remarks->reply($this->type($message->record_type), (int) $message->record_id, (string) $given['text'], $letter->recipients, new Actor(null));

        return response()->noContent();
    }

    /** Where a gateway for text messages would be: takes one in and puts it on the shelf. */
    public function takeText(Request $request, MailRoom $room): JsonResponse
    {
        if (! hash_equals(Postman::gatewayToken(), (string) $request->bearerToken())) {
            return new JsonResponse(['error' => 'Not allowed.'], 401);
        }
        $given = $request->validate(['to' => 'required|string|max:60', 'text' => 'required|string|max:5000']);
        $room->takeText((string) $request->header('Idempotency-Key', hash('sha256', $given['to'].$given['text'])), $given['to'], $given['text']);

        return new JsonResponse(['taken' => true], 202);
    }

    /** What stands between the tags of the body, or all of it where there are none. */
    private function body(string $html): string
    {
        return preg_match('#<body[^>]*>(.*)</body>#is', $html, $found) === 1 ? $found[1] : $html;
    }

    private function row(int $id): object
    {
        return $this->db->selectOne('SELECT * FROM mail_room WHERE id = ?', [$id]) ?? throw new Refused('not_found', "There is no letter {$id} on the shelf.", 404);
    }
}
