declare module "autocannon" {
  interface Client {
    setBody(body: string): void;
    on(event: "response", listener: () => void): void;
  }
  interface Result {
    requests: { average: number };
    latency: { p50: number; p99: number };
    errors: number;
    non2xx: number;
  }
  export default function autocannon(options: {
    url: string;
    method: string;
    headers: Record<string, string>;
    connections: number;
    duration: number;
    setupClient: (client: Client) => void;
  }): Promise<Result>;
}
