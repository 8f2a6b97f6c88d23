<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\Outbound\NoticeController;
use App\Http\SignOffs\SignOffs;
use App\Http\Slips\Slips;
use App\Http\Tasks\Tasks;
use App\Models\Tasks\TaskStatus;
use App\Store\Outbound\Notices;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** How much waits for whoever asks, in one answer: every screen shows it, and looks again each minute. */
final class WaitingController extends Controller
{
    public function __construct(private readonly Tasks $tasks, private readonly SignOffs $signOffs, private readonly Slips $slips)
    {
    }

    #[
        OA\Get(
            path: '/api/waiting',
            operationId: 'waiting',
            description: 'How many tasks, sign-offs and slips wait for whoever asks, and how much is new at the bell.',
            tags: ['session'],
            responses: [new Ok(WaitingResource::class)],
        ),
    ]
    public function show(Request $request): WaitingResource
    {
        $me = $this->person($request);

        return new WaitingResource(
            $this->tasks->count(TaskStatus::Open, $me->id),
            $this->signOffs->count('waiting', $me),
            $this->slips->count('mine', $me),
            Notices::since($me->id, $me->notices_seen_at, NoticeController::MOST),
        );
    }
}
