package store

import (
	"context"
	"crypto/rand"
	"encoding/hex"
)

// Secret is a random text that all processes which serve this database share, and nobody else
// knows: made when it is first asked for.
func (s *Store) Secret(ctx context.Context) (string, error) {
	b := make([]byte, 32)
	if _, err := rand.Read(b); err != nil {
		return "", err
	}
	db := s.db.WithContext(ctx)
	err := db.Exec("insert into settings (key, value) values ('secret', ?) on conflict do nothing",
		hex.EncodeToString(b)).Error
	if err != nil {
		return "", s.down(ctx, err)
	}
	var value string
	err = db.Raw("select value from settings where key = 'secret'").Scan(&value).Error
	return value, s.down(ctx, err)
}
