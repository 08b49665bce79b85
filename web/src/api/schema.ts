// Made from the server's OpenAPI document by scripts/api-types.mjs; not to be edited.
export interface paths {
    readonly "/api/health": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["HealthController_health"];
        readonly put?: never;
        readonly post?: never;
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/studies/{id}/report": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["StudiesController_report"];
        readonly put?: never;
        readonly post?: never;
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/studies": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["StudiesController_list"];
        readonly put?: never;
        readonly post: operations["StudiesController_create"];
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/studies/{id}": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["StudiesController_read"];
        readonly put: operations["StudiesController_replace"];
        readonly post?: never;
        readonly delete: operations["StudiesController_remove"];
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/problems": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["ProblemsController_list"];
        readonly put?: never;
        readonly post: operations["ProblemsController_create"];
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/problems/{id}": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["ProblemsController_read"];
        readonly put: operations["ProblemsController_replace"];
        readonly post?: never;
        readonly delete: operations["ProblemsController_remove"];
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/methods": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["MethodsController_list"];
        readonly put?: never;
        readonly post: operations["MethodsController_create"];
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/methods/{id}": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["MethodsController_read"];
        readonly put: operations["MethodsController_replace"];
        readonly post?: never;
        readonly delete: operations["MethodsController_remove"];
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/jobs": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get?: never;
        readonly put?: never;
        readonly post: operations["JobsController_create"];
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/jobs/{id}": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["JobsController_read"];
        readonly put?: never;
        readonly post?: never;
        readonly delete: operations["JobsController_cancel"];
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/jobs/{id}/runs": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["JobsController_runs"];
        readonly put?: never;
        readonly post?: never;
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
    readonly "/api/jobs/{id}/events": {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly get: operations["JobsController_events"];
        readonly put?: never;
        readonly post?: never;
        readonly delete?: never;
        readonly options?: never;
        readonly head?: never;
        readonly patch?: never;
        readonly trace?: never;
    };
}
export type webhooks = Record<string, never>;
export interface components {
    schemas: {
        readonly ApiFault: {
            readonly place: string;
            readonly message: string;
        };
        readonly ApiErrorBody: {
            /** @example 404 */
            readonly status: number;
            /** @enum {string} */
            readonly code: "bad-request" | "not-found" | "stale-version" | "too-large" | "internal";
            readonly message: string;
            readonly faults: readonly components["schemas"]["ApiFault"][];
            /** @description with a stale version: the entry as it is now */
            readonly current?: Record<string, never>;
        };
        readonly EntryDto: {
            readonly id: string;
            /** @enum {string} */
            readonly kind: "study" | "problem" | "method";
            readonly version: number;
            /** @description time of the last change, ISO 8601 */
            readonly updatedAt: string;
            /** @description a document of the open file format */
            readonly document: components["schemas"]["study"] | components["schemas"]["problem"] | components["schemas"]["method"];
        };
        readonly CreateEntryDto: {
            /** @description a document of the open file format */
            readonly document: components["schemas"]["study"] | components["schemas"]["problem"] | components["schemas"]["method"];
        };
        readonly ReplaceEntryDto: {
            /** @description a document of the open file format */
            readonly document: components["schemas"]["study"] | components["schemas"]["problem"] | components["schemas"]["method"];
            /** @description the version this replacement was made from */
            readonly version: number;
        };
        readonly CreateJobDto: {
            /** @description a study of the open file format */
            readonly document: components["schemas"]["study"];
        };
        readonly JobDto: {
            readonly id: string;
            /** @enum {string} */
            readonly state: "waiting" | "running" | "done" | "failed" | "cancelled" | "too long";
            /** @description the part of all steps that is done, from 0 to 1 */
            readonly part: number;
            /** @description rungs of all methods that are finished while it runs */
            readonly rungs: number;
            /** @description why it failed, in words */
            readonly why: string | null;
        };
        readonly title: string;
        /** @description in the notation of docs/notation.md */
        readonly text: string;
        readonly titledText: {
            readonly title: components["schemas"]["title"];
            readonly text: components["schemas"]["text"];
        };
        /** @description a rung of the ladder, counted from 0 */
        readonly rung: number;
        readonly methodInStudy: {
            readonly title: components["schemas"]["title"];
            readonly text: components["schemas"]["text"];
            readonly struck?: readonly components["schemas"]["rung"][];
            readonly window?: {
                readonly from: components["schemas"]["rung"];
                readonly to: components["schemas"]["rung"];
            };
        };
        readonly amount: number | string;
        readonly ladder: {
            readonly steps: readonly components["schemas"]["amount"][];
        } | {
            readonly intervals: readonly number[];
        } | {
            readonly first: components["schemas"]["amount"];
            readonly factor: number;
            readonly rungs: number;
        };
        readonly error: {
            readonly at?: ("end" | "max" | "rms" | "local") | {
                readonly t: number;
            };
            /** @description norm, or the name of a component */
            readonly of?: string;
            /** @enum {unknown} */
            readonly scale?: "absolute" | "relative" | "digits" | "places";
        };
        readonly study: {
            /** @constant */
            readonly schritt: 1;
            /** @constant */
            readonly kind: "study";
            readonly title: components["schemas"]["title"];
            readonly problem: components["schemas"]["titledText"];
            readonly methods: readonly components["schemas"]["methodInStudy"][];
            readonly ladder: components["schemas"]["ladder"];
            /** @enum {unknown} */
            readonly lastStep?: "fit" | "shorten" | "overrun";
            readonly error?: components["schemas"]["error"];
            /** @description a method by name, or exact */
            readonly start?: string;
            /** @enum {unknown} */
            readonly precision?: "double" | "single";
            readonly wished?: number;
        };
        readonly problem: {
            /** @constant */
            readonly schritt: 1;
            /** @constant */
            readonly kind: "problem";
            readonly title: components["schemas"]["title"];
            readonly text: components["schemas"]["text"];
        };
        readonly method: {
            /** @constant */
            readonly schritt: 1;
            /** @constant */
            readonly kind: "method";
            readonly title: components["schemas"]["title"];
            readonly text: components["schemas"]["text"];
        };
    };
    responses: never;
    parameters: never;
    requestBodies: never;
    headers: never;
    pathItems: never;
}
export type $defs = Record<string, never>;
export interface operations {
    readonly HealthController_health: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content?: never;
            };
        };
    };
    readonly StudiesController_report: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            /** @description as docs/file-format.md describes it */
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content?: never;
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly StudiesController_list: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": readonly components["schemas"]["EntryDto"][];
                };
            };
        };
    };
    readonly StudiesController_create: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["CreateEntryDto"];
            };
        };
        readonly responses: {
            readonly 201: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly StudiesController_read: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly StudiesController_replace: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["ReplaceEntryDto"];
            };
        };
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            /** @description the version is not the present one; nothing was changed */
            readonly 409: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly StudiesController_remove: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly ProblemsController_list: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": readonly components["schemas"]["EntryDto"][];
                };
            };
        };
    };
    readonly ProblemsController_create: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["CreateEntryDto"];
            };
        };
        readonly responses: {
            readonly 201: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly ProblemsController_read: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly ProblemsController_replace: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["ReplaceEntryDto"];
            };
        };
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            /** @description the version is not the present one; nothing was changed */
            readonly 409: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly ProblemsController_remove: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly MethodsController_list: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": readonly components["schemas"]["EntryDto"][];
                };
            };
        };
    };
    readonly MethodsController_create: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["CreateEntryDto"];
            };
        };
        readonly responses: {
            readonly 201: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly MethodsController_read: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly MethodsController_replace: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["ReplaceEntryDto"];
            };
        };
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["EntryDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
            /** @description the version is not the present one; nothing was changed */
            readonly 409: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly MethodsController_remove: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly JobsController_create: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path?: never;
            readonly cookie?: never;
        };
        readonly requestBody: {
            readonly content: {
                readonly "application/json": components["schemas"]["CreateJobDto"];
            };
        };
        readonly responses: {
            readonly 201: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["JobDto"];
                };
            };
            readonly 400: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly JobsController_read: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["JobDto"];
                };
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly JobsController_cancel: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly JobsController_runs: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            /** @description one entry a method, with one entry a rung */
            readonly 200: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content?: never;
            };
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
    readonly JobsController_events: {
        readonly parameters: {
            readonly query?: never;
            readonly header?: never;
            readonly path: {
                readonly id: string;
            };
            readonly cookie?: never;
        };
        readonly requestBody?: never;
        readonly responses: {
            readonly 404: {
                headers: {
                    readonly [name: string]: unknown;
                };
                content: {
                    readonly "application/json": components["schemas"]["ApiErrorBody"];
                };
            };
        };
    };
}
