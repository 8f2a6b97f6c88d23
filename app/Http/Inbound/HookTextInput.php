<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use App\Work\Inbound\WebhookIngest;
use Illuminate\Foundation\Http\FormRequest;

/** What is to be read as if it had arrived at a hook. */
final class HookTextInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => ($this->is('*/again') ? 'sometimes' : 'required').'|string|max:'.WebhookIngest::MOST_BYTES,
        ];
    }
}
