# Rough Lantern for a workshop server; its PostgreSQL stands beside it (compose.yaml).
FROM node:20-bookworm-slim
WORKDIR /lantern
COPY package.json package-lock.json ./
RUN npm install --no-audit --no-fund
COPY . .
RUN npm run build && chown -R node:node /lantern
USER node
ENV LANTERN_LISTEN=0.0.0.0
EXPOSE 4730
HEALTHCHECK --interval=30s --timeout=5s --start-period=90s \
  CMD ["node", "-e", "fetch('http://127.0.0.1:4730/api/health').then((r) => process.exit(r.ok ? 0 : 1), () => process.exit(1))"]
CMD ["./lantern", "start", "--port", "4730", "--empty"]
