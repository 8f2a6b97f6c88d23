<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use Illuminate\Foundation\Http\FormRequest;

final class SignOffListInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['box' => 'nullable|in:waiting,asked,decided,all', 'limit' => 'nullable|integer|min:1|max:500'];
    }
}
