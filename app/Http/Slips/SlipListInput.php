<?php

declare(strict_types=1);

namespace App\Http\Slips;

use Illuminate\Foundation\Http\FormRequest;

final class SlipListInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['box' => 'sometimes|in:mine,waiting,all', 'limit' => 'sometimes|integer|min:1|max:200'];
    }
}
