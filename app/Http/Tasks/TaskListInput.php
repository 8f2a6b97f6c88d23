<?php

declare(strict_types=1);

namespace App\Http\Tasks;

use Illuminate\Foundation\Http\FormRequest;

final class TaskListInput extends FormRequest
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
}
