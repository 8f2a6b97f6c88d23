<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class TaskListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'whose' => 'nullable|in:mine,team,all', 'assignee' => 'nullable|string', 'status' => 'nullable|in:open,done,lapsed,all',
            'limit' => 'nullable|integer|min:1|max:500',
            'before' => 'nullable|integer|min:0', 'after' => 'nullable|integer|min:0|prohibits:before',
        ];
    }

    public function meant(): array
    {
        return [
            'whose' => 'Left out, one’s own.',
            'assignee' => 'One person’s, by id or handle.',
            'status' => 'Left out, open ones.',
            'before' => 'Only tasks with a lower id, the highest first.',
            'after' => 'Only tasks with a higher id, the lowest first.',
            'limit' => 'At most so many, up to 500.',
        ];
    }
}
